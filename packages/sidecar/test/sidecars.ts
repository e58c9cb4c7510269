/**
 * Sidecars as other programs leave them: made up, each with something that a careless writer loses.
 */
const RDF = 'xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"';
const DC = 'xmlns:dc="http://purl.org/dc/elements/1.1/"';
const XMP = 'xmlns:xmp="http://ns.adobe.com/xap/1.0/"';
const EXIF = 'xmlns:exif="http://ns.adobe.com/exif/1.0/"';
const MADE_UP = 'xmlns:dev="http://example.org/develop/1.0/"';

const meta = (rdf: string): string =>
  `<x:xmpmeta xmlns:x="adobe:ns:meta/">\n <rdf:RDF ${RDF}>\n${rdf}\n </rdf:RDF>\n</x:xmpmeta>\n`;

export const EXISTING: Readonly<Record<string, string>> = {
  'settings as attributes, in a packet': `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
${meta(`  <rdf:Description rdf:about="" ${XMP} ${MADE_UP} xmp:Rating="2" xmp:Label="Green" dev:Exposure="+0.35" dev:ToneCurve="0, 0, 128, 140"/>`)}${' '.repeat(200)}
<?xpacket end="w"?>`,
  'titles in four languages': meta(`  <rdf:Description rdf:about="" ${DC}>
   <dc:title><rdf:Alt><rdf:li xml:lang="x-default">The customs house</rdf:li><rdf:li xml:lang="de">Das Zollhaus</rdf:li><rdf:li xml:lang="fr">La maison des douanes</rdf:li><rdf:li xml:lang="el">Το τελωνείο</rdf:li></rdf:Alt></dc:title>
   <dc:description><rdf:Alt><rdf:li xml:lang="de">Von Westen, bei Flut</rdf:li></rdf:Alt></dc:description>
  </rdf:Description>`),
  'a caption of a person’s own': meta(`  <rdf:Description rdf:about="" ${DC}>
   <dc:description><rdf:Alt><rdf:li xml:lang="x-default">Do not crop: the client wants the flagpole &amp; the &lt;quay&gt;</rdf:li><rdf:li xml:lang="de">Nicht beschneiden</rdf:li></rdf:Alt></dc:description>
   <dc:subject><rdf:Bag><rdf:li>harbour</rdf:li><rdf:li>client picks</rdf:li></rdf:Bag></dc:subject>
  </rdf:Description>`),
  'qualifiers on values':
    meta(`  <rdf:Description rdf:about="" ${DC} xmlns:q="http://example.org/qualifier/">
   <dc:creator><rdf:Seq><rdf:li rdf:parseType="Resource"><rdf:value>Studio on the quay</rdf:value><q:role>photographer</q:role></rdf:li></rdf:Seq></dc:creator>
   <dc:source rdf:parseType="Resource"><rdf:value>roll 3</rdf:value><q:checked>True</q:checked></dc:source>
   <dc:subject><rdf:Bag><rdf:li rdf:parseType="Resource"><rdf:value>ropewalk</rdf:value><q:sure>yes</q:sure></rdf:li></rdf:Bag></dc:subject>
  </rdf:Description>`),
  'structures and lists of structures': meta(`  <rdf:Description rdf:about="" ${MADE_UP}>
   <dev:Masks><rdf:Seq><rdf:li rdf:parseType="Resource"><dev:Kind>gradient</dev:Kind><dev:Amount>0.4</dev:Amount></rdf:li><rdf:li><rdf:Description dev:Kind="brush" dev:Amount="1"/></rdf:li></rdf:Seq></dev:Masks>
   <dev:Look><rdf:Description><dev:Name>Wet slate</dev:Name><dev:Parameters rdf:parseType="Resource"><dev:Table>1 2 3</dev:Table></dev:Parameters></rdf:Description></dev:Look>
  </rdf:Description>`),
  'several descriptions, typed nodes and other prefixes':
    meta(`  <rdf:Description rdf:about="uuid:1c0ffee0-0000-4000-8000-000000000001" xmlns:basic="http://ns.adobe.com/xap/1.0/" basic:Rating="5"/>
  <rdf:Description rdf:about="uuid:1c0ffee0-0000-4000-8000-000000000001" xmlns:pic="http://ns.adobe.com/exif/1.0/"><pic:FNumber>4/1</pic:FNumber><pic:GPSLatitude>54,12.5N</pic:GPSLatitude></rdf:Description>
  <dev:Adjusted rdf:about="uuid:1c0ffee0-0000-4000-8000-000000000001" ${MADE_UP}><dev:By>hand</dev:By></dev:Adjusted>`),
  'our prefixes bound to something else': meta(
    `  <rdf:Description rdf:about="" xmlns:exif="http://example.org/not-exif/" xmlns:gangway="http://example.org/ship/" exif:FNumber="plank" gangway:Rise="tide"/>`,
  ),
  'a flash with its own fields, and an old exposure': meta(`  <rdf:Description rdf:about="" ${EXIF}>
   <exif:Flash rdf:parseType="Resource"><exif:Fired>False</exif:Fired><exif:Return>0</exif:Return><exif:Mode>2</exif:Mode><exif:RedEyeMode>False</exif:RedEyeMode></exif:Flash>
   <exif:ISOSpeedRatings><rdf:Seq><rdf:li>800</rdf:li></rdf:Seq></exif:ISOSpeedRatings>
   <exif:ExposureTime>1/60</exif:ExposureTime>
  </rdf:Description>`),
  'a language around everything, comments and CDATA': `<?xml version="1.0"?>
<!-- kept by the archive -->
${meta(`  <rdf:Description rdf:about="" xml:lang="de" ${DC} ${MADE_UP}>
   <!-- do not touch -->
   <dc:rights><rdf:Alt><rdf:li xml:lang="x-default">Alle Rechte</rdf:li></rdf:Alt></dc:rights>
   <dev:Note><![CDATA[5 < 6 & "so on"]]></dev:Note>
   <dev:Plain>Grüße vom Kai</dev:Plain>
  </rdf:Description>`)}`,
  'no wrapper, white space that counts, links': `<rdf:RDF ${RDF} xml:base="http://example.org/pictures/"><rdf:Description rdf:about="" ${MADE_UP} dev:Lines="one&#10;two&#9;three"><dev:Preset>  two  spaces  </dev:Preset><dev:Original rdf:resource="http://example.org/raw/1?a=1&amp;b=2"/></rdf:Description></rdf:RDF>`,
  'written by an earlier run':
    meta(`  <rdf:Description rdf:about="" ${XMP} ${DC} xmlns:gangway="urn:gangway:xmp:1" xmp:Rating="1">
   <dc:description><rdf:Alt><rdf:li xml:lang="x-default">f/8, 1/4 s</rdf:li></rdf:Alt></dc:description>
   <dc:subject><rdf:Bag><rdf:li>Old name</rdf:li><rdf:li>harbour</rdf:li></rdf:Bag></dc:subject>
   <gangway:Keywords><rdf:Bag><rdf:li>Old name</rdf:li></rdf:Bag></gangway:Keywords><gangway:Rated>1</gangway:Rated><gangway:Station>Old name</gangway:Station><gangway:Said>f/8, 1/4 s</gangway:Said><gangway:Frame>7</gangway:Frame>
  </rdf:Description>`),
};

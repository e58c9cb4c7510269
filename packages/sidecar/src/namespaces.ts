/** Namespaces of ISO 16684-1 and of Exif in XMP (CIPA DC-010), and our own. */
export const NAMESPACES = {
  rdf: 'http://www.w3.org/1999/02/22-rdf-syntax-ns#',
  x: 'adobe:ns:meta/',
  xmp: 'http://ns.adobe.com/xap/1.0/',
  dc: 'http://purl.org/dc/elements/1.1/',
  exif: 'http://ns.adobe.com/exif/1.0/',
  exifEX: 'http://cipa.jp/exif/1.0/',
  gangway: 'urn:gangway:xmp:1',
} as const;

export type Prefix = keyof typeof NAMESPACES;

export const XML = 'http://www.w3.org/XML/1998/namespace';
export const XMLNS = 'http://www.w3.org/2000/xmlns/';

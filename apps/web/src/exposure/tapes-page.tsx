import { useMemo } from 'react';
import * as z from 'zod';
import { bedTapes, PAPERS, sheetSvg, tapeReach, type Paper } from '@gangway/paper';
import { hasBed } from '@gangway/station';
import { saveFile } from '../browser/save-file.js';
import { useKept } from '../browser/use-kept.js';
import { fileName, PaperChoice, Told, useSavePdf } from '../files/paper-choice.js';
import { SheetView } from '../drawing/sheet-view.js';
import { Page } from '../station/page.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { LensChooser } from './lens-choice.js';
import { useLenses } from './use-lenses.js';

const paperShape = z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]);

const FAILED =
  'The PDF could not be made here. Save the SVG and print that; it is as true to scale.';

/** Tapes for the bed, in true length, for each lens on this camera. */
export function TapesPage() {
  const { lenses, chosen, choose } = useLenses();
  const units = useAppSelector((state) => state.preferences.units);
  const [paper, setPaper] = useKept<Paper>('paper', paperShape, units === 'feet' ? 'Letter' : 'A4');
  const sheets = useMemo(
    () => bedTapes(chosen.station, paper, units),
    [chosen.station, paper, units],
  );
  const { save, told } = useSavePdf(FAILED);
  const name = fileName(`${chosen.name} tapes`);

  if (!hasBed(chosen.station)) {
    return (
      <Page
        title="Tapes for the bed"
        sharpness={false}
        about="This lens focuses by its own ring: its scale is engraved on it. Tapes are for cameras whose standards run on a bed or a rail; put one into the rig to print them."
      >
        {null}
      </Page>
    );
  }
  return (
    <Page
      title={`Tapes for ${chosen.name}`}
      sharpness={false}
      about={`In true length, ${tapeReach(chosen.station)} each, to stick on the bed: what to add for the draw and how large things become, and where the standard stands for each distance.`}
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
        <LensChooser {...{ lenses, chosen, choose }} />
        <PaperChoice papers={PAPERS} value={paper} onChoose={setPaper} />
        <Button
          onClick={() =>
            sheets.forEach((sheet, i) =>
              saveFile(
                `${name}${sheets.length > 1 ? `, page ${i + 1}` : ''}.svg`,
                sheetSvg(sheet),
                'image/svg+xml',
              ),
            )
          }
        >
          Tapes (SVG)
        </Button>
        <Button
          onClick={() =>
            void save(
              () => lenses.flatMap(({ station }) => bedTapes(station, paper, units)),
              'All lenses, tapes',
            )
          }
        >
          All lenses (PDF)
        </Button>
        <Button look="strong" onClick={() => void save(() => sheets, name)}>
          Tapes (PDF)
        </Button>
      </div>
      <Told said={told} />
      <div className="flex flex-wrap gap-4">
        {sheets.map((sheet, i) => (
          <SheetView key={i} sheet={sheet} className="w-full max-w-[820px] border border-rule" />
        ))}
      </div>
    </Page>
  );
}

import * as z from 'zod';
import { cardSheets, SIZES, tagSheet, type Size } from '@gangway/paper';
import { cardText } from '@gangway/station';
import { saveFile } from '../browser/save-file.js';
import { useKept } from '../browser/use-kept.js';
import { SheetView } from '../drawing/sheet-view.js';
import { fileName, PaperChoice, Told, useSavePdf } from '../files/paper-choice.js';
import { useFace } from '../files/use-face.js';
import { Page } from '../station/page.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { usePaced } from '../ui/use-paced.js';

const sizeShape = z.enum(Object.keys(SIZES) as [Size, ...Size[]]);

/** Laid out anew at this pace while something is changed. */
const READ_MS = 300;

/** The card as it is printed, on the paper that is at hand, and a tag for the strap. */
export function PaperPage() {
  const station = usePaced(useAppSelector(selectStation), READ_MS);
  const units = useAppSelector((state) => state.preferences.units);
  const [size, setSize] = useKept<Size>('card-size', sizeShape, units === 'feet' ? 'Letter' : 'A6');
  // Letters of the plan's own words; what Gangway says needs no others.
  const face = useFace(JSON.stringify(station));
  const { save, told } = useSavePdf('The PDF could not be made. Try again, or print this page.');
  const ready = face !== null && face !== 'failed';
  const sheets = ready ? cardSheets({ station, size, units }, face) : [];
  const tag = ready ? tagSheet({ station, units }, face) : null;
  const name = fileName(`${station.name} card`);

  return (
    <Page
      title="The card on paper"
      sharpness={false}
      about="Black on white, in the order it is done. Its code holds the card’s settings as plain text; any phone reads it, without a network."
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
        <PaperChoice papers={SIZES} value={size} onChoose={setSize} />
        <Button
          onClick={() => saveFile(`${name}.txt`, `${cardText(station, units)}\n`, 'text/plain')}
        >
          As text
        </Button>
        <Button disabled={!tag} onClick={() => tag && void save(() => [tag], `${name}, tag`)}>
          Tag (PDF)
        </Button>
        <Button look="strong" disabled={!ready} onClick={() => void save(() => sheets, name)}>
          Card (PDF)
        </Button>
      </div>
      <Told said={told} />
      {face === null && <p className="text-quiet">Loading the letters …</p>}
      {face === 'failed' && (
        <p role="alert" className="text-outside">
          The letters could not be loaded; go to another page and come back to try again.
        </p>
      )}
      <div className="flex flex-wrap items-start gap-4">
        {sheets.map((sheet, i) => (
          <SheetView
            key={i}
            sheet={sheet}
            className={`border border-rule ${size === 'A6' ? 'w-[360px]' : 'w-[560px]'} max-w-full`}
          />
        ))}
        {tag && <SheetView sheet={tag} className="w-[300px] max-w-full border border-rule" />}
      </div>
    </Page>
  );
}

import { fromArrayBuffer } from 'geotiff';
import type { Samples } from '@gangway/frames';
import { onItsSide, oriented } from './oriented.js';

/** TIFF files, which browsers do not show: 8 and 16 bits, grey and colours, however they are packed. */

export interface Tiff {
  readonly widthPx: number;
  readonly heightPx: number;
  /** 16 bits a colour. */
  readonly wide: boolean;
  readonly cmyk: boolean;
  /** Whether it carries a colour profile, which is not applied. */
  readonly profile: boolean;
  readonly samples: (linear: boolean) => Promise<Samples>;
}

// TIFF 6.0, tag PhotometricInterpretation.
const WHITE_IS_ZERO = 0;
const PLAIN = [WHITE_IS_ZERO, 1, 2];
const CMYK = 5;

/** @throws with what is wrong, in words */
export async function openTiff(blob: Blob): Promise<Tiff> {
  const imageOf = async () => (await fromArrayBuffer(await blob.arrayBuffer())).getImage();
  const image = await imageOf();
  const tags = image.fileDirectory;
  const bits = image.getBitsPerSample();
  // 1 whole numbers; 2 with a sign, 3 fractions.
  if (![8, 16].includes(bits) || image.getSampleFormat() !== 1) {
    throw new Error(`it has ${bits} bits a colour of a kind that is not read: 8 and 16 are`);
  }
  const [width, height] = [image.getWidth(), image.getHeight()];
  const light = Number(tags.getValue('PhotometricInterpretation') ?? 1);
  const orientation = Number((await tags.loadValue('Orientation')) ?? 1);
  const plain = PLAIN.includes(light);
  const read = async (linear: boolean): Promise<Samples> => {
    const own = await imageOf();
    const raster = await (plain
      ? own.readRasters({ interleave: true })
      : own.readRGB({ interleave: true }));
    const data = raster as unknown as Uint8Array | Uint16Array;
    const channels = data.length / (width * height);
    if (light === WHITE_IS_ZERO) {
      const most = data instanceof Uint16Array ? 65_535 : 255;
      for (let i = 0; i < data.length; i++) data[i] = most - data[i]!;
    }
    return oriented({ width, height, channels: channels as Samples['channels'], data, linear }, orientation); // prettier-ignore
  };
  const side = onItsSide(orientation);
  return {
    widthPx: side ? height : width,
    heightPx: side ? width : height,
    wide: bits === 16 && plain,
    cmyk: light === CMYK,
    profile: tags.hasTag('ICCProfile'),
    samples: read,
  };
}

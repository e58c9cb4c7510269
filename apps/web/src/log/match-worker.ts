import { matchFiles, type LogLine, type MatchOptions, type PictureFile } from '@gangway/station';

/** Matches away from the page: a long day takes seconds. It is asked in JSON, which it reads itself. */
export interface MatchAsked {
  readonly files: readonly PictureFile[];
  readonly lines: readonly LogLine[];
  readonly options: MatchOptions;
}

self.addEventListener('message', ({ data }: MessageEvent<string>) => {
  const { files, lines, options } = JSON.parse(data) as MatchAsked;
  self.postMessage(matchFiles(files, lines, options));
});

import { matchFiles, type LogLine, type MatchOptions, type PictureFile } from '@gangway/station';

/** Matches away from the page: a long day takes seconds. */
export interface MatchAsked {
  readonly files: readonly PictureFile[];
  readonly lines: readonly LogLine[];
  readonly options: MatchOptions;
}

self.addEventListener('message', ({ data }: MessageEvent<MatchAsked>) => {
  self.postMessage(matchFiles(data.files, data.lines, data.options));
});

import type { Refuse } from './refuse.js';
import type { Box, Settings } from './station.js';
import { turnedBox } from './turned-box.js';

type Sited = Pick<Settings, 'lens' | 'camera' | 'facade' | 'site'>;

/** A site that cannot be: said at the field that makes it so. */
export function siteRules(station: Sited, refuse: Refuse): void {
  facadeRules(station, refuse);
  roomRules(station, refuse);
  (station.site?.boxes ?? []).forEach((box, i) => boxRules(station, box, i, refuse));
}

function facadeRules({ facade, lens }: Sited, refuse: Refuse): void {
  if (!facade) return;
  const least = lens.focal_length_mm / 1000;
  if (facade.distance_m > 0 && facade.distance_m <= least) {
    refuse(
      ['facade', 'distance_m'],
      `would put the camera inside the wall: must be more than ${least.toPrecision(3)} m, the length of the lens itself`,
    );
  }
  if (facade.base_m !== undefined && facade.base_m >= facade.top_m) {
    refuse(['facade', 'base_m'], `must lie below the top, ${facade.top_m} m`);
  }
}

function roomRules({ site, camera }: Sited, refuse: Refuse): void {
  const room = site?.room;
  if (!room) return;
  const outside = (key: 'behind_m' | 'left_m', most: number, of: string): void => {
    if (room[key] >= most) {
      refuse(
        ['site', 'room', key],
        `puts the camera outside the room: must be less than its ${of}, ${most} m`,
      );
    }
  };
  outside('behind_m', room.length_m, 'length');
  outside('left_m', room.width_m, 'width');
  if (camera.height_m >= room.ceiling_m || camera.height_m <= 0) {
    refuse(
      ['site', 'room', 'ceiling_m'],
      `must be above the camera, which stands ${camera.height_m} m high inside the room`,
    );
  }
}

function boxRules(station: Sited, box: Box, i: number, refuse: Refuse): void {
  const { into, reachM } = turnedBox(box);
  if (box.z_m + reachM <= 0) {
    refuse(
      ['site', 'boxes', i, 'z_m'],
      'lies behind the camera: its distance ahead must be above 0',
    );
    return;
  }
  // The sensor mark in the box's own axes.
  const [x, z] = into(-box.x_m, -box.z_m);
  const base = box.base_m ?? 0;
  const height = station.camera.height_m;
  if (
    Math.abs(x) < box.width_m / 2 &&
    Math.abs(z) < box.depth_m / 2 &&
    height > base &&
    height < base + box.height_m
  ) {
    refuse(
      ['site', 'boxes', i, 'z_m'],
      'puts the camera inside this box: move it further off, or make it smaller',
    );
  }
}

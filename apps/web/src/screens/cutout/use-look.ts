import { useState } from 'react';
import { useRoute } from '../../api/client';
import type { Sight } from './tools';
import { useScene } from './use-desk';

/** How the cutout is looked at: what is shown of it, and what lies behind. */
export function useLook(standsIn: string[]) {
  const { data: scenes } = useRoute('GET /api/scenes');
  const [sceneId, setSceneId] = useState<string | null>(null);
  const { scene, bitmap } = useScene(scenes, sceneId, standsIn);
  const [sight, setSight] = useState<Sight>('tint');
  const [ground, setGround] = useState('#ffffff');
  const [tint, setTint] = useState('#8a5bb0');
  const [edgeLine, setEdgeLine] = useState(false);
  return {
    look: { sight, ground, tint, scene: bitmap, edgeLine },
    scene,
    setSight,
    setEdgeLine,
    bar: {
      ...{ sight, ground, tint, scenes, scene },
      onSight: setSight,
      onGround: setGround,
      onTint: setTint,
      onScene: setSceneId,
    },
  };
}

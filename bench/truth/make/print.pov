// A blank item on a table, or the same item with a pattern on its print area (PRINT 1).
#include "common.inc"
#include "camera.inc"
#include "item.inc"
Sky(<0.62,0.66,0.72>*0.55, <0.55,0.5,0.45>*0.35)
Key(TO, 150, SIZE, COLOUR)
plane { y, 0 Planks(GROUND,GROUND*0.5,12,GRAIN) }
box { <-200,0,45>,<200,140,50> Plaster(WALL) }
object { Whole texture { STOCK } }
#if (PRINT)
  object { Area texture { uv_mapping pigment { image_map { png "pattern.png" gamma srgb interpolate 2 } } normal { granite 0.03 scale 0.8 } finish { diffuse 0.8 } } no_shadow }
#end

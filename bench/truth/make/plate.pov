// Textured places with nothing in them (PLATE 1..8), as something would be taken away from them.
#include "common.inc"
#ifndef (PLATE) #declare PLATE = 1; #end
Sky(<0.62,0.66,0.72>*0.6, <0.5,0.46,0.4>*0.4)
#macro Grit(A, B, S) pigment { granite color_map { [0 rgb B] [0.5 rgb A] [1 rgb A*1.12] } scale S } #end
#switch (PLATE)
#case (1) // bricks seen aslant
  camera { perspective location <-30,40,-120> right x*4/3 up y angle 38 look_at <8,34,0> }
  Key(<-0.6,0.7,-0.7>, 300, 30, <1,0.95,0.88>*2.2)
  box { <-300,-50,0>,<300,300,10> texture { pigment { brick Grit(<0.62,0.6,0.56>,<0.5,0.48,0.45>,1), Grit(<0.5,0.22,0.15>,<0.3,0.12,0.08>,2) brick_size <20,7,10> mortar 0.9 } normal { granite 0.25 scale 2 } } rotate y*-18 }
#break
#case (2) // boards running away
  camera { perspective location <6,42,-90> right x*4/3 up y angle 40 look_at <0,6,0> }
  Key(<0.7,0.6,-0.2>, 300, 20, <1,0.93,0.82>*2.4)
  plane { y, 0 Planks(<0.55,0.38,0.22>,<0.26,0.15,0.08>,9,31) rotate y*12 }
  box { <-300,0,70>,<300,100,74> Plaster(<0.6,0.58,0.54>) }
#break
#case (3) // terrazzo top
  camera { perspective location <0,46,-70> right x*4/3 up y angle 40 look_at <0,0,0> }
  Key(<-0.5,0.8,0.3>, 250, 60, <1,1,0.98>*1.9)
  plane { y, 0 texture { pigment { crackle form <1,0,0> color_map { [0 rgb <0.8,0.78,0.74>] [0.18 rgb <0.78,0.76,0.72>] [0.19 rgb <0.42,0.36,0.32>] [0.3 rgb <0.5,0.42,0.36>] [0.31 rgb <0.8,0.78,0.74>] [1 rgb <0.76,0.74,0.7>] } scale 5 } } }
#break
#case (4) // a herringbone of small tiles
  camera { perspective location <10,52,-64> right x*4/3 up y angle 42 look_at <0,0,2> }
  Key(<-0.8,0.6,-0.3>, 250, 20, <1,0.97,0.9>*2)
  plane { y, 0 texture { pigment { hexagon Grit(<0.7,0.68,0.62>,<0.58,0.55,0.5>,2), Grit(<0.3,0.36,0.38>,<0.2,0.25,0.28>,2), Grit(<0.5,0.44,0.36>,<0.4,0.34,0.28>,2) scale 7 rotate y*20 } } }
#break
#case (5) // grass
  camera { perspective location <0,40,-80> right x*4/3 up y angle 38 look_at <0,2,0> }
  Key(<0.3,0.8,-0.5>, 400, 8, <1,0.96,0.86>*2.4)
  plane { y, 0 texture { pigment { average pigment_map { [1 granite color_map { [0 rgb <0.06,0.12,0.02>] [0.4 rgb <0.14,0.26,0.05>] [1 rgb <0.3,0.42,0.12>] } scale <1.2,1.2,3>] [0.7 bozo color_map { [0 rgb <0.1,0.2,0.04>] [1 rgb <0.3,0.36,0.12>] } scale 18 turbulence 0.5] } } normal { granite 0.9 scale 1.5 } } }
#break
#case (6) // pebbles
  camera { perspective location <-6,44,-76> right x*4/3 up y angle 38 look_at <0,1,0> }
  Key(<-0.7,0.6,-0.1>, 400, 12, <1,0.94,0.85>*2.6)
  plane { y, 0 texture { pigment { crackle color_map { [0 rgb <0.08,0.07,0.06>] [0.1 rgb <0.2,0.18,0.16>] [0.3 rgb <0.5,0.47,0.43>] [1 rgb <0.62,0.59,0.54>] } scale 4.5 } normal { crackle 1.4 scale 4.5 } } }
#break
#case (7) // striped cloth with a soft fold
  camera { perspective location <0,48,-76> right x*4/3 up y angle 40 look_at <0,0,0> }
  Key(<0.8,0.5,-0.3>, 250, 30, <1,0.97,0.92>*2.1)
  plane { y, 0 texture { pigment { average pigment_map { [2 gradient x color_map { [0 rgb <0.75,0.72,0.66>] [0.55 rgb <0.75,0.72,0.66>] [0.55 rgb <0.2,0.3,0.42>] [0.8 rgb <0.2,0.3,0.42>] [0.8 rgb <0.72,0.4,0.3>] [1 rgb <0.72,0.4,0.3>] } scale 11 rotate y*31 warp { turbulence 0.03 }] [0.5 granite color_map { [0 rgb 0.4] [1 rgb 0.8] } scale 2] } } normal { average normal_map { [1 bozo 1.2 scale 26] [1 quilted 0.4 scale 0.6] } } } }
#break
#else // a tiled wall over a worktop, light falling off
  camera { perspective location <14,36,-96> right x*4/3 up y angle 40 look_at <0,20,0> }
  Key(<-0.9,0.5,-0.4>, 90, 20, <1,0.9,0.75>*2.2)
  box { <-300,0,0>,<300,200,5> texture { pigment { brick Grit(<0.5,0.5,0.48>,<0.42,0.42,0.4>,1), Grit(<0.62,0.68,0.64>,<0.55,0.62,0.58>,9) brick_size <15,15,15> mortar 0.5 } finish { diffuse 0.75 specular 0.2 roughness 0.02 } } }
  box { <-300,-5,-60>,<300,0,0> Stone(<0.42,0.4,0.38>,<0.7,0.68,0.65>,9) }
#end

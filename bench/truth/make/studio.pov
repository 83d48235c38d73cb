// An item's photo: a softbox from one side, a card on the other, light paper. SIDE -1 left, 1 right.
#include "common.inc"
#include "items.inc"
#ifndef (SIDE) #declare SIDE = -1; #end
camera { perspective location <0,24,-80> right x*4/3 up y angle (ITEM = 3 ? 24 : 18) look_at <0,(ITEM = 3 ? 8.6 : 6.2),0> }
#if (!MATTE)
  Sky(<0.5,0.5,0.5>*0.85, <0.5,0.5,0.5>*0.5)
  Key(<SIDE*0.62,0.62,-0.75>, 130, 75, <1,0.99,0.97>*1.5)
  plane { y, 0 texture { pigment { rgb 0.86 } } }
  plane { -z, -90 texture { pigment { rgb 0.86 } } }
#end
object { Item() }

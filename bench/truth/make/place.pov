// A place (PLACE) with or without its item, which stands at AT.
#include "common.inc"
#include "items.inc"
#include "camera.inc"
#if (!MATTE) #include "scenes.inc" #end
#if (WITH) object { Item() translate AT } #end

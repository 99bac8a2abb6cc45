// Package motion says what moves across the picture and how far: the blur of a
// shutter time, the step from frame to frame, the shake that a stabiliser can
// still hide, vibration and wobble, lamps that pulse, and the stick that turns
// the camera.
//
// Lengths in the picture are pixels of the output frame, measured at its centre.
// Away from the centre a rectilinear picture stretches and a fisheye does not;
// neither is modelled, nor are rolling-shutter skew of slow pans and motion
// towards the camera.
package motion

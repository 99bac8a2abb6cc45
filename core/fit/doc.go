// Package fit says whether a filter goes on a camera and stays on: clearance of
// ring and barrel, hold against inertia and wind, dark corners, balance on a
// gimbal, and mass.
//
// Lengths are millimetres, masses grams and forces newtons. Wear, heat and dirt
// are not modelled; a trial with the filter in hand outweighs every figure here.
package fit

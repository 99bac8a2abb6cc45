// Package light turns what people read off meters, cameras and the sky into the
// exposure value of the scene.
package light

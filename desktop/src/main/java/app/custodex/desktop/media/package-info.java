/** Pictures, sound and video on the screen; they come decoded from the core. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.media;

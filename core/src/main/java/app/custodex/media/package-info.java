/**
 * Pictures, sound and video of strangers: decoded by native libraries in processes of their own, which get bytes and no path, and may end
 * without harm.
 */
@org.jspecify.annotations.NullMarked
package app.custodex.media;

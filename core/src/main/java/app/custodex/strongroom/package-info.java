/**
 * Where all backups are kept: an OCFL 1.1 storage root (https://ocfl.io/1.1/spec/) with one object a phone and one
 * version a layer.
 *
 * <p>Doors: {@link app.custodex.strongroom.Strongroom} opens it, {@link app.custodex.strongroom.LayerDraft} takes what
 * a backup copies and publishes it in one step, {@link app.custodex.strongroom.StoredLayer} reads a layer, and
 * {@link app.custodex.strongroom.LayerCheck} reads back every stored byte.
 *
 * <p>Small items lie one after the other in TAR packs, large ones in files of their own; both open with standard tools.
 * The manifest of each layer (gzip'd JSON lines) names every item and where its bytes are.
 */
@org.jspecify.annotations.NullMarked
package app.custodex.strongroom;

package app.custodex.places;

import app.custodex.model.MediaFile.Place;

/**
 * A place with a name.
 *
 * @param people who live there; the more, the farther away its name is shown from
 */
public record Town(String name, Place place, long people) {}

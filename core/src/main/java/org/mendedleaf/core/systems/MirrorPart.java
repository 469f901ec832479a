package org.mendedleaf.core.systems;

import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;

/** What a look does with systems of one manner; {@link Mirror} chooses among them. */
abstract class MirrorPart {

    final Mirror mirror;
    final OpenVault vault;
    final Place place;
    final OutsideSystem system;
    final String name;

    MirrorPart(Mirror mirror, OpenVault vault, Place place, OutsideSystem system) {
        this.mirror = mirror;
        this.vault = vault;
        this.place = place;
        this.system = system;
        this.name = place.outside().orElseThrow().place();
    }
}

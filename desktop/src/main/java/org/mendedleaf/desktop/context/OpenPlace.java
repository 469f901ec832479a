package org.mendedleaf.desktop.context;

import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;

/** A place with the vault that holds it. */
public record OpenPlace(OpenVault vault, Place place) {}

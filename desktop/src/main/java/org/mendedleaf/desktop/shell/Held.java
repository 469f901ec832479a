package org.mendedleaf.desktop.shell;

import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;

/** A place with the vault that holds it. */
public record Held(OpenVault vault, Place place) {}

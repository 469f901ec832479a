package org.mendedleaf.core.systems;

/** A member of a place and her role. */
public record Member(String who, Role role) {}

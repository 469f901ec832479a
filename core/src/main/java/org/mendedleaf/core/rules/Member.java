package org.mendedleaf.core.rules;

/** A member of a place and her role. */
public record Member(String who, Role role) {}

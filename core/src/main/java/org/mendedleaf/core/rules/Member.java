package org.mendedleaf.core.rules;

/** A member of a place and their role. */
public record Member(String who, Role role) {}

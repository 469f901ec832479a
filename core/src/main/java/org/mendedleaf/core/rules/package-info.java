/**
 * How places are worked with: their settings, their members and roles, what each role may do, and what somebody sees. The
 * same for protected folders and for places in other systems.
 */
package org.mendedleaf.core.rules;

/**
 * The settings of a person on this computer: vaults, name, language, connections to other systems, and what the window
 * remembers. They are written whole and read by several programs at once. Start reading at {@link UserSettings}.
 */
package org.mendedleaf.core.settings;

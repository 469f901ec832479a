/**
 * What is protected and how well: folders, places in other systems, their settings with what each does, the vault itself and
 * its copies. Start reading at {@link ProtectionModel}.
 */
package org.mendedleaf.desktop.protection;

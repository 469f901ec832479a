/**
 * Folders of the disk, worked in step by step without following links, however deep and whatever their names are made of; files
 * that are written whole or not at all ({@link Durable}), and who may read them ({@link Access}). What only Linux can do is
 * behind {@link LinuxNames}, with a portable way beside it. It knows nothing of vaults and lines. Start reading at {@link
 * SafeFolder}.
 */
package org.mendedleaf.core.disk;

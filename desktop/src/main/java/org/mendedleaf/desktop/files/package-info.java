/**
 * The Files screen and the reading view: a folder at a moment, the line of one file, the ruler of time, what a version changed,
 * and single changes that go back. Models have no scene. Start reading at {@link FilesModel}.
 */
package org.mendedleaf.desktop.files;

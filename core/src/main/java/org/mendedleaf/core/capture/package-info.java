/**
 * How content comes in from folders: a look at the disk ({@link Looker}), what it means ({@link Changes}, pure), reading
 * without tearing ({@link FileReader}) and putting points on lines ({@link PointWriter}). {@link Guardian} keeps folders at
 * their rhythms. It takes nothing out of a vault and knows nothing of recovery. Start reading at {@link Capture}.
 */
package org.mendedleaf.core.capture;

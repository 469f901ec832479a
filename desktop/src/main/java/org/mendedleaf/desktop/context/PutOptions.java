package org.mendedleaf.desktop.context;

import java.util.List;
import org.mendedleaf.core.line.DraftChoice;

/**
 * How a revision is put in.
 *
 * @param note that shall stand at the version; empty for none
 * @param stage whether it is a draft
 * @param take whether the file is removed from where it was
 * @param tell who gets a message
 * @param author who wrote it, when that is somebody else than who puts it in; empty otherwise
 */
public record PutOptions(String note, DraftChoice stage, boolean take, List<String> tell, String author) {

    /** With no note, by the rules of the place, the file stays, nobody is told. */
    public static final PutOptions PLAIN = new PutOptions("", DraftChoice.BY_RULE, false, List.of(), "");

    /** Copies the list. */
    public PutOptions {
        tell = List.copyOf(tell);
    }
}

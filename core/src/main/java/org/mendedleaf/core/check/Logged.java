package org.mendedleaf.core.check;

import java.util.List;
import org.mendedleaf.core.catalogue.Op;

/** The tables whose every change stands in the change logs too, see {@link Op}. */
final class Logged {

    /** Their names. */
    static final List<String> TABLES = List.of(
            "place",
            "exclusion",
            "folder",
            "node",
            "line",
            "version",
            "event",
            "span",
            "density",
            "capture",
            "journal",
            "journal_item",
            "outside_file",
            "holding",
            "cut",
            "relation",
            "snapshot",
            "schedule",
            "rule",
            "member",
            "edition",
            "checkout",
            "comment",
            "noted",
            "card",
            "finding",
            "taken",
            "ruleset",
            "hold",
            "held_line",
            "kept_after_all",
            "let_go",
            "journal_link",
            "decision",
            "fine",
            "vault_copy",
            "journal_end");

    private Logged() {}
}

package org.mendedleaf.desktop.context;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.retention.Erasing;

/** Where the Files screen leads to. */
public interface Navigator {

    /**
     * What is to be recovered or rolled back.
     *
     * @param openPlace the place
     * @param paths chosen, from its root; the empty path is all of it
     * @param at the moment; null is now
     * @param rollBack whether they shall be again as they were, instead of being restored
     */
    record What(
            OpenPlace openPlace,
            List<String> paths,
            @Nullable Instant at,
            boolean rollBack) {
        /** Copies the list. */
        public What {
            paths = List.copyOf(paths);
        }
    }

    /** To the plan of a recovery or a roll back. */
    void plan(What what);

    /** To the comparison of a folder at a moment with now. */
    void compare(OpenPlace openPlace, String folder, @Nullable Instant from);

    /** To the snapshots of a place; new ones may cover only a folder in it. */
    void snapshots(OpenPlace openPlace, String folder);

    /** To a revision that may be the wrong file. */
    void guard(PutService.Doubt doubt);

    /** To the table of many files that come in to a folder of a place. */
    void intake(OpenPlace openPlace, List<Path> files, String folder);

    /** To the scattered copies in a folder of a place. */
    void fold(OpenPlace openPlace, String folder);

    /** To the safety copies in a folder of a place. */
    void strays(OpenPlace openPlace, String folder);

    /** To what erasing versions of a line would do. */
    void erase(OpenPlace openPlace, Line line, Erasing.What what, int number);

    /**
     * To a hold on one of these.
     *
     * @param version what the version is called that one of them is of; empty where none is
     */
    void hold(OpenPlace openPlace, List<Hold> choices, String version);

    /** To nowhere. */
    Navigator NOWHERE = new Navigator() {
        @Override
        public void plan(What what) {}

        @Override
        public void compare(OpenPlace openPlace, String folder, @Nullable Instant from) {}

        @Override
        public void snapshots(OpenPlace openPlace, String folder) {}

        @Override
        public void guard(PutService.Doubt doubt) {}

        @Override
        public void intake(OpenPlace openPlace, List<Path> files, String folder) {}

        @Override
        public void fold(OpenPlace openPlace, String folder) {}

        @Override
        public void strays(OpenPlace openPlace, String folder) {}

        @Override
        public void erase(OpenPlace openPlace, Line line, Erasing.What what, int number) {}

        @Override
        public void hold(OpenPlace openPlace, List<Hold> choices, String version) {}
    };
}

package org.mendedleaf.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/** What somebody sees of a line, by role and by what the place shows of drafts. */
class VisibilityTest {

    private static final Place PLACE = new Place(
            1,
            new Source.Folder(Path.of("/desk")),
            "Front desk",
            Rhythm.BY_HAND,
            List.of(),
            Instant.EPOCH,
            Versioning.ON);

    private static Version version(int number, int major, int minor) {
        return new Version(
                1,
                number,
                Instant.EPOCH.plusSeconds(number),
                Instant.EPOCH,
                "Ines",
                Origin.SAVED,
                0,
                new FileState(EntryKind.FILE, 10, 0, 0, Digest.of(new byte[32]), Optional.empty(), Recipe.EMPTY),
                "",
                "lease.odt",
                new Edition(major, minor),
                new Edition(major, minor).label());
    }

    private static Event event(EventKind kind, int number) {
        return new Event(1, Instant.EPOCH, "Ines", kind, "lease.odt", "lease.odt", number);
    }

    /** Version 1, drafts 1.1 and 1.2, version 2, each with what happened to it; newest first. */
    private static Line line(LinePoint... more) {
        List<LinePoint> points = new java.util.ArrayList<>(List.of(more));
        points.addAll(List.of(version(4, 2, 0), version(3, 1, 2), version(2, 1, 1), version(1, 1, 0)));
        return new Line(1, PLACE, "lease.odt", Optional.empty(), 40, points);
    }

    private static Rights rights(Role role, String draftsSeenBy) {
        return new Rights(
                "Jory", role, PlaceRules.DEFAULT.settings().with(Setting.DRAFTS_SEEN_BY, draftsSeenBy), "Front desk");
    }

    private static Line seen(Line line, Role role, String draftsSeenBy) {
        return Visibility.see(line, rights(role, draftsSeenBy), FileProperties.NOTHING);
    }

    @Test
    void whoMayNotSeeDraftsSeesWhatWasPublishedTheNewestFirst() {
        assertThat(seen(line(), Role.READER, "editors").versions())
                .extracting(Version::number)
                .containsExactly(4, 1);
        assertThat(seen(line(), Role.EDITOR, "owner").versions())
                .extracting(Version::number)
                .containsExactly(4, 1);
    }

    @Test
    void whoMaySeeDraftsSeesAll() {
        assertThat(seen(line(), Role.READER, "everybody")).isEqualTo(line());
        assertThat(seen(line(), Role.EDITOR, "editors")).isEqualTo(line());
        assertThat(seen(line(), Role.OWNER, "owner")).isEqualTo(line());
    }

    @ParameterizedTest
    @EnumSource(
            value = EventKind.class,
            names = {"CHECKED_OUT", "CHECKED_IN", "GIVEN_UP", "CHECK_OUT_ENDED"})
    void whoWorksOnAFileIsNoConcernOfThoseWhoSeeNoDrafts(EventKind kind) {
        Line worked = line(event(kind, 4));
        assertThat(seen(worked, Role.READER, "editors").points()).noneMatch(Event.class::isInstance);
        assertThat(seen(worked, Role.EDITOR, "editors").points()).anyMatch(Event.class::isInstance);
    }

    @Test
    void whatHappenedToTheFileIsSeenByAllButThePublishingOfADraft() {
        Line moved = line(event(EventKind.MOVED, 3), event(EventKind.PUBLISHED, 3), event(EventKind.PUBLISHED, 4));
        List<LinePoint> points = seen(moved, Role.READER, "editors").points();
        assertThat(points).filteredOn(Event.class::isInstance).hasSize(2);
        assertThat(points).contains(event(EventKind.MOVED, 3), event(EventKind.PUBLISHED, 4));
        assertThat(points).doesNotContain(event(EventKind.PUBLISHED, 3));
    }

    @Test
    void aFileThatIsNotForThemIsAnEmptyLineAndStaysItself() {
        FileProperties owners = new FileProperties("", FileProperties.Visibility.OWNER);
        Line nothing = Visibility.see(line(), rights(Role.EDITOR, "everybody"), owners);
        assertThat(nothing.points()).isEmpty();
        assertThat(nothing.path()).isEqualTo("lease.odt");
        assertThat(nothing.id()).isEqualTo(1);
        assertThat(Visibility.see(line(), rights(Role.OWNER, "everybody"), owners))
                .isEqualTo(line());
        FileProperties editors = new FileProperties("", FileProperties.Visibility.EDITORS);
        assertThat(Visibility.see(line(), rights(Role.READER, "everybody"), editors)
                        .points())
                .isEmpty();
        assertThat(Visibility.see(line(), rights(Role.EDITOR, "everybody"), editors)
                        .points())
                .isNotEmpty();
    }
}

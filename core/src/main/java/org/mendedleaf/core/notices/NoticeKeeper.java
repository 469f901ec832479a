package org.mendedleaf.core.notices;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.findings.HealthStore;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;

/**
 * Tells people of what needs attention: once of each thing, several at a time together, and not in quiet hours; what came up in
 * those is told after them, as far as it still is so. What was told is remembered, so that no other program of this person tells
 * it again; what is mended and comes back is told again.
 */
public final class NoticeKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(20);

    /** What comes with the time, as lateness, is looked for so often when nothing else changes. */
    private static final Duration AT_LEAST = Duration.ofMinutes(10);

    /** So many are named in one notice. */
    private static final int NAMED = 3;

    private final OpenVault vault;
    private final UserSettings home;
    private final Clock clock;
    private final DesktopNotice.Teller desktop;
    private final Listener listener;
    private final Set<String> said = new LinkedHashSet<>();
    private boolean first = true;
    private String seen = "";
    private String state = "";
    private Instant looked = Instant.EPOCH;

    /** Hears of what is new since this program runs; called from the keeper's thread, in quiet hours too. */
    public interface Listener {
        /** These are new. */
        void came(List<Concern> concerns);
    }

    /** Tells of a vault. */
    public NoticeKeeper(
            OpenVault vault, UserSettings home, Clock clock, DesktopNotice.Teller desktop, Listener listener) {
        this.vault = vault;
        this.home = home;
        this.clock = clock;
        this.desktop = desktop;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.notices");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        String state;
        try (Reading reading = vault.read()) {
            state = reading.state() + HealthStore.state(vault.folder());
        }
        boolean late = !looked.plus(AT_LEAST).isAfter(clock.instant());
        if (!late && state.equals(this.state)) {
            return ROUND;
        }
        looked = clock.instant();
        settle();
        List<Concern> now = Concern.of(vault, home.who(), looked, clock.getZone());
        List<Concern> fresh = now.stream().filter(c -> !said.contains(c.id())).toList();
        said.clear();
        now.forEach(c -> said.add(c.id()));
        if (!first && !fresh.isEmpty()) {
            listener.came(fresh);
        }
        first = false;
        tell(now);
        this.state = state;
        return ROUND;
    }

    /** What was dismissed and has gone is told again when it comes back. */
    private void settle() throws IOException {
        Dismissals dismissals = new Dismissals(vault);
        if (!dismissals.all().isEmpty()) {
            dismissals.settle(Concern.warnings(vault, home.who(), looked, clock.getZone()));
        }
    }

    private void tell(List<Concern> now) throws IOException {
        NoticeSettings settings = NoticeSettings.of(home);
        if (!settings.desktop() || settings.quiet().hold(LocalTime.now(clock))) {
            return;
        }
        String about = ids(now);
        if (about.equals(seen)) {
            return;
        }
        NoticesTold told = NoticesTold.open(home.folder());
        List<Concern> fresh = told.fresh(vault.folder().root(), now);
        if (!fresh.isEmpty()) {
            desktop.tell(title(fresh), words(fresh));
        }
        seen = about;
    }

    private static String ids(List<Concern> now) {
        return String.join("\n", now.stream().map(Concern::id).sorted().toList());
    }

    private static String title(List<Concern> fresh) {
        return fresh.size() == 1
                ? Words.of("notices.title." + fresh.get(0).kind())
                : Words.of("notices.title.several", fresh.size());
    }

    private static String words(List<Concern> fresh) {
        List<String> lines = new ArrayList<>();
        fresh.stream().limit(NAMED).map(Concern::words).forEach(lines::add);
        if (fresh.size() > NAMED) {
            lines.add(Words.of("notices.more", fresh.size() - NAMED));
        }
        return String.join("\n", lines);
    }
}

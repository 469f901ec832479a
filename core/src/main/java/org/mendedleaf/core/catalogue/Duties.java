package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Writes down which duties of a vault fail, so that everybody who asks how it stands is told, also when nobody sees the
 * program that fails. Where the vault cannot be written to, whoever runs the duties is told all the same.
 */
public final class Duties implements Supervisor.Hearer {

    private final OpenVault vault;
    private final Clock clock;
    private final Consumer<Failing> hearer;

    /**
     * A duty that fails.
     *
     * @param name what it is, as a message
     * @param since when its first failure in a row was
     * @param trouble what went wrong last, as a message; empty when it goes well again
     */
    public record Failing(String name, Instant since, String trouble) {}

    /** Writes down, and tells {@code hearer}. */
    public Duties(OpenVault vault, Clock clock, Consumer<Failing> hearer) {
        this.vault = vault;
        this.clock = clock;
        this.hearer = hearer;
    }

    /** Which duties fail at this time, by name. */
    public static List<Failing> failing(Reading reading) throws IOException {
        return reading.sql()
                .list(
                        "SELECT name, since, trouble FROM duty ORDER BY name",
                        r -> new Failing(Words.told(r.getString(1)), Moment.instant(r.getLong(2)), r.getString(3)));
    }

    private static String words(Throwable why) {
        if (why instanceof VaultException v) {
            return v.words();
        }
        if (Failures.saysNoMemory(why)) {
            return Words.of("failure.memory");
        }
        boolean expected = why instanceof IOException || why instanceof IllegalArgumentException;
        return expected && why.getMessage() != null ? Failures.named(why) : Words.of("capture.defect", why);
    }

    @Override
    public void failed(Supervisor.Duty duty, Throwable why, int failures, Duration again) {
        Instant now = clock.instant();
        Failing failing = new Failing(duty.name(), now, words(why));
        // Somebody else who writes is no trouble, unless it does not end.
        if (why instanceof VaultException.Busy && failures < 3) {
            return;
        }
        write(duty::name, failing);
        hearer.accept(failing);
    }

    @Override
    public void recovered(Supervisor.Duty duty) {
        Failing well = new Failing(duty.name(), clock.instant(), "");
        write(duty::name, well);
        hearer.accept(well);
    }

    @Override
    public void ended(Supervisor.Duty duty) {
        // What is not done any more does not fail any more.
        try (Reading reading = vault.read()) {
            if (failing(reading).stream().noneMatch(f -> f.name().equals(duty.name()))) {
                return;
            }
        } catch (IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Duties.class).debug("asking how {} goes", duty.name(), e);
        }
        write(duty::name, new Failing(duty.name(), clock.instant(), ""));
    }

    /**
     * The duty of this name is none any more.
     *
     * @param name says it in the language that is used; another program may use another one
     */
    public static void end(WriteSession session, Supplier<String> name) throws IOException {
        String inAll = Words.inAll(name);
        session.applyUnlogged("DELETE FROM duty WHERE name = ?", inAll);
        // Earlier versions wrote it in one language.
        for (String one : Words.each(inAll)) {
            session.applyUnlogged("DELETE FROM duty WHERE name = ?", one);
        }
    }

    private void write(Supplier<String> name, Failing failing) {
        try (WriteSession session = vault.write()) {
            if (failing.trouble().isEmpty()) {
                end(session, name);
            } else {
                session.applyUnlogged(
                        "INSERT INTO duty(name, since, trouble) VALUES (?,?,?) ON CONFLICT (name)"
                                + " DO UPDATE SET trouble = excluded.trouble",
                        Words.inAll(name),
                        Moment.micros(failing.since()),
                        failing.trouble());
            }
            session.commit();
        } catch (IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Duties.class).warn("{} cannot be written down", failing, e);
        }
    }
}

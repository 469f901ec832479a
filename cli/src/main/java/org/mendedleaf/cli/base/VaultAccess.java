package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Option;

/** What all commands have: who works, with which settings, and the vaults that the command is about. */
public abstract class VaultAccess extends Output {

    private static final Duration PATIENCE = Duration.ofSeconds(10);
    private @Nullable UserSettings settings;
    private @Nullable SystemRegistry registry;

    @Option(
            names = {"-h", "--help"},
            usageHelp = true,
            descriptionKey = "cli.option.help")
    protected boolean help;

    @Option(names = "--vault", paramLabel = "DIR", descriptionKey = "cli.option.vault")
    @Nullable
    protected Path vault;

    /** Read before anything is logged, by {@code Main}. */
    @Option(names = "--verbose", descriptionKey = "cli.option.verbose")
    protected boolean verbose;

    @Option(names = "--working-as", paramLabel = "NAME", descriptionKey = "cli.option.workingAs")
    @Nullable
    protected String workingAs;

    protected VaultAccess(Surroundings surroundings) {
        super(surroundings);
    }

    /** Who works here: the person of this computer, unless chosen otherwise. */
    public String who() throws IOException {
        String as = workingAs;
        return as == null ? settings().who() : as;
    }

    protected UserSettings settings() throws IOException {
        if (settings == null) {
            settings = UserSettings.of(surroundings.environment());
        }
        return settings;
    }

    /** Where what goes on by itself is noted. */
    protected ActivityLog activity(String program) throws IOException {
        return ActivityLog.beside(settings().folder(), clock(), program);
    }

    public Clock clock() throws IOException {
        return settings().clock(surroundings.clock());
    }

    public Instant now() throws IOException {
        return clock().instant();
    }

    public ZoneId zone() throws IOException {
        return clock().getZone();
    }

    /** The moment from which on something counts, a day from its beginning; empty when none was typed. */
    protected Optional<Instant> since(@Nullable String typed) throws IOException {
        return typed == null ? Optional.empty() : Optional.of(moments().readSince(typed));
    }

    /** The moment until which something counts, a day to its end; empty when none was typed. */
    protected Optional<Instant> until(@Nullable String typed) throws IOException {
        return typed == null ? Optional.empty() : Optional.of(moments().read(typed));
    }

    private MomentText moments() throws IOException {
        return new MomentText(zone(), now(), MomentText.NOWHERE);
    }

    protected Authors authors() throws IOException {
        return Authors.owners(System.getProperty("user.name"), who());
    }

    /** The vaults that this command is about: the one that was named, or all of the user's. */
    protected List<Path> vaults() throws IOException {
        Path named = vault;
        List<Path> all = named == null ? settings().vaults() : List.of(Protect.realOfNew(named));
        if (all.isEmpty()) {
            throw new IllegalArgumentException(Words.of("cli.noVault"));
        }
        return all;
    }

    /** What a command does with each vault in turn; returns its exit code. */
    protected interface VaultWork {
        /** Returns an exit code. */
        public int with(Path folder, OpenVault open) throws Exception;
    }

    /**
     * Works with each vault that this command is about. One that cannot be used now costs itself: it is said, and the exit
     * code says it too.
     */
    protected int eachVault(VaultWork work) throws Exception {
        int code = ExitCodes.DONE;
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder)) {
                code = Math.max(code, work.with(folder, open));
            } catch (VaultException e) {
                complain(e.words());
                code = ExitCodes.NO_VAULT;
            }
        }
        return code;
    }

    public OpenVault open(Path folder) throws IOException {
        return said(OpenVault.open(folder, holder(), PATIENCE));
    }

    /** Opens a vault, or makes one; {@code access} is who else may open it, null to leave that as it is. */
    protected OpenVault openOrCreate(Path folder, @Nullable Access access) throws IOException {
        return said(
                access == null
                        ? OpenVault.openOrCreate(folder, holder(), PATIENCE)
                        : OpenVault.openOrCreate(folder, access, holder(), PATIENCE));
    }

    private static String holder() {
        return Words.of("cli.holder", ProcessHandle.current().pid());
    }

    private OpenVault said(OpenVault open) {
        if (open.wasOpenToOthers()) {
            complain(Words.of("vault.tightened", open.folder().root()));
        }
        return open;
    }

    /** The systems that the user is connected to. */
    protected SystemRegistry registry() throws IOException {
        if (registry == null) {
            registry = new SystemRegistry(settings(), Systems.OPENER, clock(), Retry.DEFAULT);
        }
        return registry;
    }
}

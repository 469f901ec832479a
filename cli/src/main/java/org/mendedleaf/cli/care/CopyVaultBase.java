package org.mendedleaf.cli.care;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What commands about copies of the vault have. */
abstract class CopyVaultBase extends Base {

    public CopyVaultBase(Surroundings surroundings) {
        super(surroundings);
    }

    Copies copies(OpenVault open) throws IOException {
        return new Copies(open, clock(), who());
    }

    /** What a command does with the copy that was named. */
    interface CopyWork {
        /** Returns an exit code. */
        int with(Copies copies, CopyStatus status) throws IOException;
    }

    /** Works with the copy in a folder, or with all of them; what one of them costs, the others do not pay. */
    int eachCopy(@Nullable Path folder, CopyWork work) throws Exception {
        boolean[] found = {false};
        int code = eachVault((where, open) -> {
            Copies copies = copies(open);
            List<CopyStatus> wanted =
                    folder == null ? copies.list() : copies.in(folder).stream().toList();
            int worst = ExitCodes.DONE;
            for (CopyStatus status : wanted) {
                found[0] = true;
                try {
                    worst = Math.max(worst, work.with(copies, status));
                } catch (VaultException e) {
                    complain(e.words());
                    worst = ExitCodes.SOME_FAILED;
                }
            }
            return worst;
        });
        if (!found[0] && folder != null) {
            throw new IllegalArgumentException(Words.of("cli.copyVault.unknown", folder));
        }
        if (!found[0] && !json) {
            say("cli.copyVault.none");
        }
        return code;
    }

    void print(CopyStatus status) throws IOException {
        line(status.copy().folder() + ": " + status.sentence(now(), zone()));
        List<String> more = new ArrayList<>();
        if (status.seen().bytes() > 0) {
            more.add(
                    status.freeBytes() < 0
                            ? Formats.size(status.seen().bytes())
                            : Words.of(
                                    "copies.space",
                                    Formats.size(status.seen().bytes()),
                                    Formats.size(status.freeBytes())));
        }
        more.add(checked(status));
        if (status.sameDrive()) {
            more.add(Words.of("copies.sameDrive"));
        }
        line("  " + String.join(" ", more));
    }

    private String checked(CopyStatus status) throws IOException {
        Optional<java.time.Instant> at = status.seen().checked();
        return at.isEmpty()
                ? Words.of("copies.neverChecked")
                : Words.of("copies.checked", Formats.moment(at.get(), now(), zone()));
    }

    static Map<String, Object> json(CopyStatus status) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("folder", status.copy().folder().toString());
        map.put("standing", status.standing().name());
        map.put("lastGood", status.seen().good().map(Object::toString).orElse(null));
        map.put("lastTried", status.seen().tried().map(Object::toString).orElse(null));
        map.put("lastChecked", status.seen().checked().map(Object::toString).orElse(null));
        map.put("commitsBehind", status.commitsBehind());
        map.put("packsLetGo", status.stale());
        map.put("bytes", status.seen().bytes());
        map.put("freeBytes", status.freeBytes());
        map.put("sameDrive", status.sameDrive());
        map.put("trouble", status.seen().trouble());
        return map;
    }
}

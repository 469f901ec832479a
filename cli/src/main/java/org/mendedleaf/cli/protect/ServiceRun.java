package org.mendedleaf.cli.protect;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceChannel;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/**
 * The service itself: keeps all vaults of the user until it is ended, those that are made later too, and waits for those whose drive is
 * away.
 */
@Command(name = "run", description = "${bundle:cli.service.run}")
public final class ServiceRun extends WatchCommand {

    private final Instant since = Instant.now();

    public ServiceRun(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    String program() {
        return "service";
    }

    @Override
    boolean goesOnWithNothing() {
        return true;
    }

    @Override
    String startedWords() {
        return "cli.service.started";
    }

    @Override
    List<Path> wanted() throws IOException {
        return UserSettings.open(settings().folder()).vaults();
    }

    @Override
    AutoCloseable channel(CountDownLatch end) throws IOException {
        return ServiceChannel.open(settings().folder(), this::status, end::countDown)
                .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.service.already")));
    }

    private ObjectNode status() {
        ObjectNode status = ServiceChannel.answer()
                .put("process", ProcessHandle.current().pid())
                .put("since", since.toString());
        ArrayNode vaults = status.putArray("vaults");
        state().forEach((vault, state) -> {
            ObjectNode each = vaults.addObject()
                    .put("vault", vault.toString())
                    .put("trouble", state.trouble())
                    .put("keptByOthers", state.keptByOthers());
            ArrayNode failing = each.putArray("failing");
            state.failing().forEach(failing::add);
        });
        return status;
    }
}

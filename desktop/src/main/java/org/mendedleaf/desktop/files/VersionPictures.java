package org.mendedleaf.desktop.files;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.scene.image.Image;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Looks;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.look.Pictures;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** The pictures and pages of a version, read when they are asked for. */
final class VersionPictures implements Pictures {

    private final Desk desk;
    private final Held of;
    private final Version version;

    VersionPictures(Desk desk, Held of, Version version) {
        this.desk = desk;
        this.of = of;
        this.version = version;
    }

    private interface Read {
        byte[] from(Reading reading) throws IOException;
    }

    @Override
    public void ask(String ref, Consumer<Image> to) {
        load(reading -> Looks.shared().member(reading, version, ref), to);
    }

    @Override
    public void page(int page, int width, Consumer<Image> to) {
        load(reading -> Looks.shared().page(reading, version, page, width), to);
    }

    private void load(Read read, Consumer<Image> to) {
        Callable<Image> work = () -> {
            try (Reading reading = of.vault().read()) {
                return new Image(new ByteArrayInputStream(read.from(reading)));
            }
        };
        desk.background()
                .run(
                        work,
                        image -> {
                            if (!image.isError()) {
                                to.accept(image);
                            }
                        },
                        e -> org.slf4j.LoggerFactory.getLogger(VersionPictures.class)
                                .debug("no picture", e));
    }
}

package org.mendedleaf.desktop.files;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.scene.image.Image;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.document.Pictures;

/** The pictures and pages of a version, read when they are asked for. */
final class VersionPictures implements Pictures {

    private final AppContext context;
    private final OpenPlace of;
    private final Version version;

    VersionPictures(AppContext context, OpenPlace of, Version version) {
        this.context = context;
        this.of = of;
        this.version = version;
    }

    private interface Read {
        byte[] from(Reading reading) throws IOException;
    }

    @Override
    public void ask(String ref, Consumer<Image> to) {
        load(reading -> DocumentCache.shared().member(reading, version, ref), to);
    }

    @Override
    public void page(int page, int width, Consumer<Image> to) {
        load(reading -> DocumentCache.shared().page(reading, version, page, width), to);
    }

    private void load(Read read, Consumer<Image> to) {
        Callable<Image> work = () -> {
            try (Reading reading = of.vault().read()) {
                return new Image(new ByteArrayInputStream(read.from(reading)));
            }
        };
        context.background()
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

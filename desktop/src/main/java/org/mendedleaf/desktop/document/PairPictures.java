package org.mendedleaf.desktop.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.scene.image.Image;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.PictureChanges;
import org.mendedleaf.core.compare.PagePictures;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.document.DocumentProcess;

/** The pictures and pages of two contents, which are read when the first of them is asked for. */
public final class PairPictures implements Pictures {

    private final Pair.Source source;
    private final Work work;
    private @Nullable Pair pair;

    /** Does work off the thread of the screen. */
    @FunctionalInterface
    public interface Work {
        /** Hands on what comes of it; a picture that cannot be made does not come. */
        <T> void ask(Callable<T> work, Consumer<T> done);
    }

    /** Pictures of what comes from there. */
    public PairPictures(Pair.Source source, Work work) {
        this.source = source;
        this.work = work;
    }

    private synchronized Pair pair() throws IOException {
        Pair read = pair;
        if (read == null) {
            read = source.get();
            pair = read;
        }
        return read;
    }

    private Side side(boolean before) throws IOException {
        Pair both = pair();
        Optional<Side> wanted =
                before ? both.before().or(both::after) : both.after().or(both::before);
        return wanted.orElseThrow(() -> new IOException("no side"));
    }

    private static Image image(byte[] bytes) {
        return new Image(new ByteArrayInputStream(bytes));
    }

    private void picture(Callable<Image> make, Consumer<Image> to) {
        work.ask(make, image -> {
            if (!image.isError()) {
                to.accept(image);
            }
        });
    }

    private void member(boolean before, String ref, Consumer<Image> to) {
        picture(
                () -> {
                    Side side = side(before);
                    return image(DocumentProcess.shared().member(side.name(), side.content(), ref));
                },
                to);
    }

    @Override
    public void ask(String ref, Consumer<Image> to) {
        member(false, ref, to);
    }

    @Override
    public void askBefore(String ref, Consumer<Image> to) {
        member(true, ref, to);
    }

    @Override
    public void page(int page, int width, Consumer<Image> to) {
        picture(() -> image(DocumentProcess.shared().page(side(false).content(), page, width)), to);
    }

    @Override
    public void pageBefore(int page, int width, Consumer<Image> to) {
        picture(() -> image(DocumentProcess.shared().page(side(true).content(), page, width)), to);
    }

    @Override
    public void difference(int before, int after, int width, Consumer<PictureChanges> to) {
        work.ask(
                () -> PagePictures.compare(
                        side(true).content(), before, side(false).content(), after, width),
                to);
    }
}

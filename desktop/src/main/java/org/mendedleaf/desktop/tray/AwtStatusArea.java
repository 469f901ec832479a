package org.mendedleaf.desktop.tray;

import java.awt.AWTException;
import java.awt.Graphics2D;
import java.awt.GraphicsEnvironment;
import java.awt.Image;
import java.awt.MenuItem;
import java.awt.PopupMenu;
import java.awt.SystemTray;
import java.awt.TrayIcon;
import java.awt.image.BufferedImage;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The status area of the desktop, reached by what Java brings for it: the notification area of X11 desktops, of macOS and of Windows. */
final class AwtStatusArea implements StatusArea {

    private static final Logger log = LoggerFactory.getLogger(AwtStatusArea.class);

    /** Something that can fail and takes a while. */
    private interface Step {
        void run() throws IOException;
    }

    private final TrayModel model;
    private Runnable changed = () -> {};
    private @Nullable TrayIcon icon;

    AwtStatusArea(TrayModel model) {
        this.model = model;
    }

    /** Told when something was done here after which the service may stand otherwise. */
    void whenChanged(Runnable told) {
        changed = told;
    }

    @Override
    public boolean isThere() {
        return !GraphicsEnvironment.isHeadless() && SystemTray.isSupported();
    }

    @Override
    public boolean mayCome() {
        return !GraphicsEnvironment.isHeadless();
    }

    @Override
    public void show(TrayModel.View view) {
        SystemTray tray = SystemTray.getSystemTray();
        Image image = image(tray.getTrayIconSize().width, view.state());
        TrayIcon shown = icon;
        if (shown == null) {
            shown = new TrayIcon(image);
            shown.setImageAutoSize(true);
            shown.addActionListener(e -> run(model::open));
            icon = shown;
            try {
                tray.add(shown);
            } catch (AWTException e) {
                log.warn("no place in the status area", e);
            }
        }
        shown.setImage(image);
        shown.setToolTip(view.words());
        shown.setPopupMenu(menu(view));
    }

    private PopupMenu menu(TrayModel.View view) {
        PopupMenu menu = new PopupMenu();
        menu.add(said(view.words()));
        view.details().forEach(d -> menu.add(said(d)));
        menu.addSeparator();
        menu.add(item("tray.open", model::open));
        if (view.state() == TrayModel.State.STOPPED) {
            menu.add(item("tray.start", model::start));
        }
        menu.addSeparator();
        menu.add(item("tray.remove", model::remove));
        return menu;
    }

    private static MenuItem said(String words) {
        MenuItem item = new MenuItem(words);
        item.setEnabled(false);
        return item;
    }

    private MenuItem item(String key, Step step) {
        MenuItem item = new MenuItem(Words.of(key));
        item.addActionListener(e -> run(step));
        return item;
    }

    /** Away from the thread of the menu; what goes wrong is said beside the icon. */
    private void run(Step step) {
        Thread worker = new Thread(
                () -> {
                    try {
                        step.run();
                    } catch (IOException e) {
                        log.warn("not done", e);
                        TrayIcon shown = icon;
                        if (shown != null) {
                            shown.displayMessage(
                                    Words.of("desktop.title"), Failures.named(e), TrayIcon.MessageType.ERROR);
                        }
                    }
                    changed.run();
                },
                "tray icon");
        worker.setDaemon(true);
        worker.start();
    }

    private static BufferedImage image(int size, TrayModel.State state) {
        BufferedImage image = new BufferedImage(size, size, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        TrayImage.draw(g, size, state);
        g.dispose();
        return image;
    }

    @Override
    public void close() {
        TrayIcon shown = icon;
        if (shown != null) {
            SystemTray.getSystemTray().remove(shown);
            icon = null;
        }
    }
}

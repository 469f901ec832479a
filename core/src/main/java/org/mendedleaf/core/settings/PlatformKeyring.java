package org.mendedleaf.core.settings;

import com.github.javakeyring.BackendNotSupportedException;
import com.github.javakeyring.PasswordAccessException;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The keyring of the platform: the Secret Service of freedesktop.org or the wallet of the desktop, the keychain of macOS, the
 * credentials of Windows. It is asked when a secret is needed and not before; it may ask whoever sits there to unlock it, and is
 * waited for that long.
 */
final class PlatformKeyring implements Keyring {

    private static final Logger log = LoggerFactory.getLogger(PlatformKeyring.class);
    private static final String SERVICE = "Mended Leaf";
    private static final long PATIENCE_SECONDS = 60;

    private interface Work<T> {
        T on(com.github.javakeyring.Keyring keyring) throws PasswordAccessException;
    }

    /** There is no keyring here. */
    private static final class NoKeyring extends IOException {
        private static final long serialVersionUID = 1;

        NoKeyring(Throwable cause) {
            super(cause);
        }
    }

    /** Does it on a thread that may be left behind: a keyring that waits for somebody cannot be told to stop. */
    private static <T> T ask(Work<T> work) throws IOException {
        FutureTask<T> task = new FutureTask<>(() -> {
            try (com.github.javakeyring.Keyring keyring = com.github.javakeyring.Keyring.create()) {
                return work.on(keyring);
            }
        });
        Thread thread = new Thread(task, "keyring");
        thread.setDaemon(true);
        thread.start();
        try {
            return task.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        } catch (TimeoutException e) {
            throw new IOException(e);
        } catch (ExecutionException e) {
            Throwable cause = e.getCause() == null ? e : e.getCause();
            if (cause instanceof BackendNotSupportedException || cause instanceof LinkageError) {
                throw new NoKeyring(cause);
            }
            throw new IOException(cause);
        }
    }

    @Override
    public boolean keep(String account, String secret) {
        try {
            return ask(keyring -> {
                keyring.setPassword(SERVICE, account, secret);
                // Some take it and have nothing.
                return keyring.getPassword(SERVICE, account).equals(secret);
            });
        } catch (IOException e) {
            log.debug("no keyring takes it", e);
            return false;
        }
    }

    @Override
    public Optional<String> get(String account) throws IOException {
        try {
            return Optional.of(ask(keyring -> keyring.getPassword(SERVICE, account)));
        } catch (IOException e) {
            if (e.getCause() instanceof PasswordAccessException) {
                log.debug("nothing in the keyring", e);
                return Optional.empty();
            }
            throw e;
        }
    }

    @Override
    public void forget(String account) {
        try {
            ask(keyring -> {
                keyring.deletePassword(SERVICE, account);
                return true;
            });
        } catch (IOException e) {
            log.debug("nothing to forget in the keyring", e);
        }
    }
}

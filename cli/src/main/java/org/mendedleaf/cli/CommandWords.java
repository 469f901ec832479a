package org.mendedleaf.cli;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Enumeration;
import java.util.List;
import java.util.ResourceBundle;
import org.jspecify.annotations.Nullable;

/** The messages of commands and options alone: the parser goes through all there are once more for each command. */
final class CommandWords extends ResourceBundle {

    private static final String PREFIX = "cli.";
    private static final String EXAMPLES = "cli.examples.";

    private final ResourceBundle all;
    private final List<String> keys = new ArrayList<>();

    CommandWords(ResourceBundle all) {
        this.all = all;
        for (String key : Collections.list(all.getKeys())) {
            if (key.startsWith(PREFIX) && !key.startsWith(EXAMPLES)) {
                keys.add(key);
            }
        }
    }

    @Override
    protected @Nullable Object handleGetObject(String key) {
        return all.containsKey(key) ? all.getObject(key) : null;
    }

    @Override
    public boolean containsKey(String key) {
        return all.containsKey(key);
    }

    @Override
    public Enumeration<String> getKeys() {
        return Collections.enumeration(keys);
    }
}

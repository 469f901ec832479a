package org.mendedleaf.core;

import net.jqwik.api.lifecycle.AroundPropertyHook;
import net.jqwik.api.lifecycle.PropagationMode;
import net.jqwik.api.lifecycle.PropertyExecutionResult;
import net.jqwik.api.lifecycle.PropertyExecutor;
import net.jqwik.api.lifecycle.PropertyLifecycleContext;

/** Tries each property so many times more often than it says, see {@link Tries}. Registered for all properties. */
public final class MoreTries implements AroundPropertyHook {

    private final int times;

    /** As often as the build says. */
    public MoreTries() {
        this(Tries.times());
    }

    MoreTries(int times) {
        this.times = times;
    }

    @Override
    public PropagationMode propagateTo() {
        return PropagationMode.ALL_DESCENDANTS;
    }

    @Override
    public PropertyExecutionResult aroundProperty(PropertyLifecycleContext context, PropertyExecutor property) {
        context.attributes().tries().ifPresent(n -> context.attributes().setTries(n * times));
        return property.execute();
    }
}

package org.mendedleaf.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.lifecycle.AfterContainer;
import net.jqwik.api.lifecycle.PropertyAttributes;
import net.jqwik.api.lifecycle.PropertyExecutor;
import net.jqwik.api.lifecycle.PropertyLifecycleContext;
import org.junit.jupiter.api.Test;

class MoreTriesTest {

    private static int seen;

    private static PropertyAttributes tried(Optional<Integer> tries, int times) {
        PropertyAttributes attributes = mock(PropertyAttributes.class);
        when(attributes.tries()).thenReturn(tries);
        PropertyLifecycleContext context = mock(PropertyLifecycleContext.class);
        when(context.attributes()).thenReturn(attributes);
        PropertyExecutor property = mock(PropertyExecutor.class);
        new MoreTries(times).aroundProperty(context, property);
        verify(property).execute();
        return attributes;
    }

    @Test
    void aPropertyIsTriedSoManyTimesMoreOftenThanItSays() {
        verify(tried(Optional.of(4), 25)).setTries(100);
        verify(tried(Optional.empty(), 25), never()).setTries(any());
    }

    @Property(tries = 3)
    void allPropertiesAreTriedSo(@ForAll long any) {
        seen++;
    }

    @AfterContainer
    static void theyWereTriedAsOftenAsTheBuildSays() {
        assertThat(seen).isEqualTo(3 * Tries.times());
    }
}

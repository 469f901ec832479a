package org.mendedleaf.core.report;

import java.util.AbstractList;
import java.util.List;
import java.util.RandomAccess;
import java.util.function.Function;

/**
 * A list whose elements are made when they are asked for, and not kept: what is written row by row need not be in memory as a
 * whole, with a million rows.
 */
public final class MappedList<A, B> extends AbstractList<B> implements RandomAccess {

    private final List<A> of;
    private final Function<? super A, ? extends B> as;

    /**
     * A list.
     *
     * @param of a list that does not change
     * @param as makes an element; the same each time
     */
    public MappedList(List<A> of, Function<? super A, ? extends B> as) {
        this.of = of;
        this.as = as;
    }

    @Override
    public B get(int index) {
        return as.apply(of.get(index));
    }

    @Override
    public int size() {
        return of.size();
    }
}

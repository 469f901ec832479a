package org.mendedleaf.standins;

/** A request that is not done, with what is answered to it. */
final class Problem extends Exception {

    private static final long serialVersionUID = 1;

    private final int status;
    private final String code;

    Problem(int status, String code, String detail) {
        super(detail);
        this.status = status;
        this.code = code;
    }

    Book.Answer answer() {
        return Book.Answer.error(status, code, String.valueOf(getMessage()));
    }

    static Problem missing(String what) {
        return new Problem(404, "missing", what);
    }

    static Problem bad(String what) {
        return new Problem(400, "bad-request", what);
    }
}

import org.mendedleaf.core.disk.NativeLibraries;

/** Takes the libraries in machine code out of their jars, into the folder that the property {@code mendedleaf.natives} names. */
final class Natives {

    private Natives() {}

    public static void main(String[] args) {
        NativeLibraries.ready();
        NativeLibraries.readyForSystemCalls();
    }
}

package leveltally.server.printers;

import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterKind;

/** A way onto paper. It says whether it took the pages, never what came out; people do. */
public interface Printer {
    PrinterKind kind();

    /**
     * Gives it pages, once; never inside a transaction, because it may take its time.
     *
     * @return what is known of it; it throws nothing
     */
    Handed print(CompanyPrinter on, PrintJob job);

    /**
     * True unless it is certain that nothing more comes out of what it was given.
     *
     * @param job what it called the job; empty where it named none
     */
    default boolean mayStillPrint(CompanyPrinter on, String job) {
        return false;
    }

    /** Takes a job out of its queue, as far as it answers. */
    default void callBack(CompanyPrinter on, String job) {}
}

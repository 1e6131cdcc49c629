package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What a pasted text was recognised as. */
public sealed interface Recognised {

    /** Returns the form. */
    Form form();

    /** Returns the devices that the text names, one a line of it; empty for a text about one device. */
    default List<Row> rows() {
        return List.of();
    }

    /**
     * A table with a device a line.
     *
     * @param sure whether the whole form is known; else lines were read by what stands on them, and are only shown
     * @param leftOut lines that say nothing of a device, each with the reason
     * @param problems lines that cannot be right
     */
    record Table(Form form, boolean sure, List<Row> rows, List<Remark> leftOut, List<Remark> problems)
            implements Recognised {
        public Table {
            rows = List.copyOf(rows);
            leftOut = List.copyOf(leftOut);
            problems = List.copyOf(problems);
        }
    }

    /** How an echo ended. */
    enum Answer {
        /** Every echo was answered. */
        ANSWERED,
        /** Some were answered, some not. */
        LOSS,
        /** One question had two answers. */
        TWICE,
        /** No answer at all. */
        SILENT,
        /** Somebody said that it cannot be reached. */
        UNREACHABLE,
        /** The machine that asked has no network itself. */
        OWN_NETWORK,
        /** The machine that asked may not send echoes. */
        NOT_ALLOWED,
        /** The name was not found, so nothing was asked. */
        NO_SUCH_NAME,
        /** The packets run in a ring. */
        IN_A_RING,
        /** The text ends before it says how it went. */
        CUT_OFF
    }

    /**
     * One address asked by an echo.
     *
     * @param asked whom, or empty when the text does not say
     * @param lossPercent 0..100, or -1 when not said
     * @param toldBy who said that it cannot be reached
     * @param macs who answered, where the tool says so
     */
    record Echo(
            Form form,
            Optional<Ipv4Address> asked,
            Answer answer,
            int lossPercent,
            Optional<Ipv4Address> toldBy,
            Set<Mac> macs)
            implements Recognised {
        public Echo {
            macs = Set.copyOf(macs);
        }
    }

    /** How a port answered. */
    enum PortState {
        OPEN,
        REFUSED,
        SILENT,
        UNREACHABLE,
        NO_SUCH_NAME,
        CUT_OFF
    }

    /**
     * A connection that was tried.
     *
     * @param port 1..65535, or empty when the text does not say
     */
    record PortTest(Optional<Ipv4Address> asked, Optional<Integer> port, PortState state) implements Recognised {
        @Override
        public Form form() {
            return Form.PORT_TEST;
        }
    }

    /**
     * A scan of one or more hosts.
     *
     * @param ports what was said of ports, by host
     */
    record Scan(List<Row> hosts, List<PortTest> ports, List<Remark> leftOut) implements Recognised {
        public Scan {
            hosts = List.copyOf(hosts);
            ports = List.copyOf(ports);
            leftOut = List.copyOf(leftOut);
        }

        @Override
        public Form form() {
            return Form.SCAN;
        }

        @Override
        public List<Row> rows() {
            return hosts;
        }
    }

    /** What a mail server said. */
    record Mail(MailReply reply) implements Recognised {
        @Override
        public Form form() {
            return Form.MAIL;
        }
    }

    /** Nothing that is known here. */
    record Unknown() implements Recognised {
        @Override
        public Form form() {
            return Form.UNKNOWN;
        }
    }
}

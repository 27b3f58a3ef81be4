package org.mossbank.server.sandbox;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Which calls to the system a program may not make: those that change mounts, namespaces, modules, clocks and keys, look into other
 * processes, or speak to what no network namespace hides. All others are allowed; a compiler needs too many to list.
 *
 * <p>As a classic BPF program, eight bytes an instruction.
 *
 * @see <a href="https://www.kernel.org/doc/html/latest/userspace-api/seccomp_filter.html">Seccomp BPF</a>
 */
final class SeccompFilter {
    private static final int LOAD = 0x20;
    private static final int IF_EQUAL = 0x15;
    private static final int IF_AT_LEAST = 0x35;
    private static final int IF_ANY_BIT = 0x45;
    private static final int RETURN = 0x06;

    private static final int ALLOW = 0x7fff0000;
    private static final int KILL = 0x80000000;
    private static final int REFUSE = 0x00050001;
    /** "No such call": programs then fall back to the older one; any other error ends a virtual machine. */
    private static final int UNKNOWN_CALL = 0x00050026;

    private static final int NUMBER = 0;
    private static final int ARCHITECTURE = 4;
    private static final int FIRST_ARGUMENT = 16;

    /** Flags with which a new process is given namespaces of its own. */
    private static final int NEW_NAMESPACES = 0x7e020000;

    private static final int NETLINK = 16;
    private static final int LAST_INTERNET = 10;
    private static final int OTHER_TABLE = 0x40000000;

    private final List<int[]> instructions = new ArrayList<>();

    private SeccompFilter() {}

    /**
     * Numbers of calls on one sort of machine.
     *
     * @param refused those that are refused whatever their arguments
     */
    private record Calls(
            int architecture, boolean hasOtherTable, int forking, int forkingAnew, int socket, int[] refused) {}

    /** By the name that Java has for the machine. */
    private static final Map<String, Calls> MACHINES = Map.of(
            "amd64",
            new Calls(0xc000003e, true, 56, 435, 41, new int[] {
                101, 103, 155, 161, 163, 164, 165, 166, 167, 168, 169, 175, 176, 179, 227, 246, 248, 249, 250, 272, 298,
                303, 304, 308, 310, 311, 313, 320, 321, 323, 425, 426, 427, 428, 429, 430, 431, 432, 433, 442
            }),
            "aarch64",
            new Calls(0xc00000b7, false, 220, 435, 198, new int[] {
                39, 40, 41, 51, 60, 89, 97, 104, 105, 106, 112, 116, 117, 142, 170, 217, 218, 219, 224, 225, 241, 264,
                265, 268, 270, 271, 273, 280, 282, 294, 425, 426, 427, 428, 429, 430, 431, 432, 433, 442
            }));

    /** The program for a machine; empty where its calls are not known. */
    static Optional<byte[]> of(String machine) {
        return Optional.ofNullable(MACHINES.get(machine)).map(calls -> new SeccompFilter().program(calls));
    }

    private byte[] program(Calls calls) {
        add(LOAD, 0, 0, ARCHITECTURE);
        add(IF_EQUAL, 1, 0, calls.architecture);
        add(RETURN, 0, 0, KILL);
        add(LOAD, 0, 0, NUMBER);
        if (calls.hasOtherTable) {
            add(IF_AT_LEAST, 0, 1, OTHER_TABLE);
            add(RETURN, 0, 0, KILL);
        }
        for (int call : calls.refused) {
            add(IF_EQUAL, 0, 1, call);
            add(RETURN, 0, 0, REFUSE);
        }
        add(IF_EQUAL, 0, 1, calls.forkingAnew);
        add(RETURN, 0, 0, UNKNOWN_CALL);
        add(IF_EQUAL, 0, 4, calls.forking);
        add(LOAD, 0, 0, FIRST_ARGUMENT);
        add(IF_ANY_BIT, 0, 1, NEW_NAMESPACES);
        add(RETURN, 0, 0, REFUSE);
        add(RETURN, 0, 0, ALLOW);
        add(IF_EQUAL, 0, 4, calls.socket);
        add(LOAD, 0, 0, FIRST_ARGUMENT);
        add(IF_EQUAL, 2, 0, NETLINK);
        add(IF_AT_LEAST, 0, 1, LAST_INTERNET + 1);
        add(RETURN, 0, 0, REFUSE);
        add(RETURN, 0, 0, ALLOW);
        ByteBuffer bytes = ByteBuffer.allocate(8 * instructions.size()).order(ByteOrder.LITTLE_ENDIAN);
        for (int[] i : instructions) {
            bytes.putShort((short) i[0]).put((byte) i[1]).put((byte) i[2]).putInt(i[3]);
        }
        return bytes.array();
    }

    private void add(int code, int ifTrue, int ifFalse, int value) {
        instructions.add(new int[] {code, ifTrue, ifFalse, value});
    }
}

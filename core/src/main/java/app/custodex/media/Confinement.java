package app.custodex.media;

import static java.lang.foreign.ValueLayout.ADDRESS;
import static java.lang.foreign.ValueLayout.JAVA_BYTE;
import static java.lang.foreign.ValueLayout.JAVA_INT;
import static java.lang.foreign.ValueLayout.JAVA_LONG;
import static java.lang.foreign.ValueLayout.JAVA_SHORT;

import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.FunctionDescriptor;
import java.lang.foreign.Linker;
import java.lang.foreign.MemoryLayout;
import java.lang.foreign.MemorySegment;
import java.lang.invoke.MethodHandle;

/**
 * Gives up for good what a worker does not need: after it no file can be opened, nothing be started or connected to, on any of its threads.
 * It takes no rights and no other program: limits by setrlimit, then a filter of system calls, seccomp(2). On other systems than Linux
 * on x86-64 it does nothing; there the worker is confined only by what its libraries are told.
 */
final class Confinement {
    // The numbers stand in the headers of Linux: sys/prctl.h, sys/resource.h, linux/seccomp.h, linux/bpf_common.h,
    // linux/audit.h.
    private static final int SET_DUMPABLE = 4;
    private static final int SET_NO_NEW_PRIVILEGES = 38;
    private static final int LIMIT_OF_FILES_WRITTEN = 1;
    private static final int LIMIT_OF_CORE_DUMPS = 4;
    private static final long SECCOMP = 317;
    private static final long SET_FILTER = 1;
    private static final long FOR_ALL_THREADS = 1;
    private static final int LOAD = 0x20;
    private static final int JUMP_IF_EQUAL = 0x15;
    private static final int JUMP_IF_BITS = 0x45;
    private static final int RETURN = 0x06;
    private static final int ALLOW = 0x7fff0000;
    private static final int REFUSE = 0x00050000;
    private static final int END_PROCESS = 0x80000000;
    private static final int NOT_PERMITTED = 1;
    private static final int NO_SUCH_CALL = 38;
    private static final int X86_64 = 0xc000003e;
    private static final int CLONE = 56;
    private static final int CLONE3 = 435;
    private static final int AS_THREAD = 0x10000;
    /** Where the number of the call, the machine, and the first argument stand in what the filter is given. */
    private static final int NUMBER_AT = 0;

    private static final int MACHINE_AT = 4;
    private static final int ARGUMENT_AT = 16;

    /** What a Java machine calls between its start and its end, by the numbers of x86-64. */
    private static final int[] ALLOWED = {
        0,
        1,
        3,
        5,
        7,
        8,
        9,
        10,
        11,
        12,
        13,
        14,
        15,
        17,
        19,
        20, // read, write, close, fstat, poll, memory, signals
        24,
        25,
        27,
        28,
        35,
        39,
        60,
        63,
        96,
        98,
        99, // yield, mremap, madvise, sleep, identity, exit, times
        102,
        104,
        107,
        108,
        131,
        157,
        158,
        186,
        202,
        203,
        204,
        219, // users, signal stack, prctl, threads, futex
        228,
        229,
        230,
        231,
        234,
        271,
        273,
        302,
        309,
        318,
        324,
        334 // clocks, exit of all, ppoll, random, membarrier
    };

    private final Linker linker = Linker.nativeLinker();

    private Confinement() {}

    static void enter() throws IOException {
        if (!System.getProperty("os.name").equals("Linux")
                || !System.getProperty("os.arch").equals("amd64")) {
            return;
        }
        try (var arena = Arena.ofConfined()) {
            new Confinement().enter(arena);
        } catch (IOException e) {
            throw e;
        } catch (Throwable e) {
            throw new IOException("the worker could not be confined", e);
        }
    }

    private void enter(Arena arena) throws Throwable {
        limit(arena, LIMIT_OF_CORE_DUMPS);
        limit(arena, LIMIT_OF_FILES_WRITTEN);
        var prctl = call("prctl", JAVA_INT, JAVA_INT, JAVA_LONG, JAVA_LONG, JAVA_LONG, JAVA_LONG);
        // Then no other program of the same user looks into its memory.
        succeed((int) prctl.invokeExact(SET_DUMPABLE, 0L, 0L, 0L, 0L), "dumpable");
        succeed((int) prctl.invokeExact(SET_NO_NEW_PRIVILEGES, 1L, 0L, 0L, 0L), "no new privileges");
        var syscall = call("syscall", JAVA_LONG, JAVA_LONG, JAVA_LONG, JAVA_LONG, ADDRESS);
        succeed((long) syscall.invokeExact(SECCOMP, SET_FILTER, FOR_ALL_THREADS, filter(arena)), "seccomp");
    }

    private void limit(Arena arena, int what) throws Throwable {
        var none = arena.allocateFrom(JAVA_LONG, 0, 0);
        succeed((int) call("setrlimit", JAVA_INT, JAVA_INT, ADDRESS).invokeExact(what, none), "limit " + what);
    }

    private MethodHandle call(String name, MemoryLayout result, MemoryLayout... arguments) {
        return linker.downcallHandle(
                linker.defaultLookup().findOrThrow(name), FunctionDescriptor.of(result, arguments));
    }

    private static void succeed(long result, String what) throws IOException {
        if (result != 0) {
            throw new IOException(what + ": " + result);
        }
    }

    /** The program of the filter: what is allowed, a thread but no process, and nothing else. */
    private static MemorySegment filter(Arena arena) {
        int check = 3 + 1 + ALLOWED.length + 2 + 2; // where the arguments of clone are looked at
        int allow = check + 3;
        var code = new Code(arena.allocate(8L * (allow + 1), 8));
        code.add(LOAD, 0, 0, MACHINE_AT);
        code.add(JUMP_IF_EQUAL, 1, 0, X86_64);
        code.add(RETURN, 0, 0, END_PROCESS);
        code.add(LOAD, 0, 0, NUMBER_AT);
        for (int number : ALLOWED) {
            code.add(JUMP_IF_EQUAL, allow - code.next() - 1, 0, number);
        }
        code.add(JUMP_IF_EQUAL, check - code.next() - 1, 0, CLONE);
        // What this one does is behind a pointer; the C library takes the older one when there is no such call.
        code.add(JUMP_IF_EQUAL, 1, 0, CLONE3);
        code.add(RETURN, 0, 0, REFUSE | NOT_PERMITTED);
        code.add(RETURN, 0, 0, REFUSE | NO_SUCH_CALL);
        code.add(LOAD, 0, 0, ARGUMENT_AT);
        code.add(JUMP_IF_BITS, 1, 0, AS_THREAD);
        code.add(RETURN, 0, 0, REFUSE | NOT_PERMITTED);
        code.add(RETURN, 0, 0, ALLOW);
        var program = arena.allocate(16, 8);
        program.set(JAVA_SHORT, 0, (short) (allow + 1));
        program.set(ADDRESS, 8, code.memory);
        return program;
    }

    private static final class Code {
        private final MemorySegment memory;
        private int next;

        Code(MemorySegment memory) {
            this.memory = memory;
        }

        int next() {
            return next;
        }

        void add(int operation, int ifTrue, int ifFalse, int value) {
            long at = 8L * next++;
            memory.set(JAVA_SHORT, at, (short) operation);
            memory.set(JAVA_BYTE, at + 2, (byte) ifTrue);
            memory.set(JAVA_BYTE, at + 3, (byte) ifFalse);
            memory.set(JAVA_INT, at + 4, value);
        }
    }
}

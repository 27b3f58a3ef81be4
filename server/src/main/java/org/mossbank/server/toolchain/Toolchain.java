package org.mossbank.server.toolchain;

import java.util.List;
import org.mossbank.core.trial.LooseCode;
import org.mossbank.core.trial.TestRun;
import org.mossbank.server.sandbox.SandboxTools;

/** A compiler or interpreter for trials: how its code is built, run and tested when a check does not say otherwise. */
interface Toolchain {
    /** By which checks name it, for good. */
    String key();

    /** For people. */
    String title();

    /** A command whose first line of output names the version; it fails where the toolchain is not there. */
    String versionCommand();

    /** Shell lines before each command, such as functions that keep a virtual machine small. */
    default String prelude() {
        return "";
    }

    /** What builds all of a work folder; empty where nothing is built. */
    String build();

    /** What runs a program; a run's arguments follow it. */
    String run();

    /** What runs tests in the work folder, and where its reports then are; none where no runner writes in an open format. */
    default Tests tests() {
        return Tests.none();
    }

    /** Where loose code goes when a check begins. */
    LooseCode loose();

    default SandboxTools tools() {
        return SandboxTools.none();
    }

    /** Languages of blocks of code that are meant for it. */
    List<String> languages();

    /**
     * A test command.
     *
     * @param command  empty where there is none to propose
     * @param expected where its reports are
     */
    record Tests(String command, TestRun expected) {
        static Tests none() {
            return new Tests("", new TestRun(TestRun.Format.TAP, ""));
        }
    }
}

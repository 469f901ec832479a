/**
 * Stand-ins for outside systems: an office library, an object store, a file server, a backup drive. Each is a small
 * honest model of the outside thing, with its own storage in open files, its own rules, its own clock and its own port on
 * 127.0.0.1; slow, failing or away on request. They share no code with the program.
 */
package org.mendedleaf.standins;

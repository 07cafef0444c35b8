#pragma once
// Where things are in this clone, by whole paths.

namespace erdwerk::test {

extern const char* const sourceFolder;  ///< the clone
extern const char* const demoFolder;    ///< data/demo
extern const char* const cliBinary;     ///< the command line that was built with the tests

}  // namespace erdwerk::test

#include "support/places.h"

namespace erdwerk::test {

const char* const sourceFolder = SOURCE_FOLDER;
const char* const demoFolder = DEMO_FOLDER;
const char* const cliBinary = CLI_BINARY;

}  // namespace erdwerk::test

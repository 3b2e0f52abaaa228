#include "this_build.hpp"

#ifdef COLDBRICK_SANITIZED
const bool is_sanitized = true;
#else
const bool is_sanitized = false;
#endif
const char* const tool_program = COLDBRICK_TOOL;

// What differs between the builds in which the same compiled tests are linked.
#pragma once

// Whether the library and the tool have the sanitizers. These make slow tests ten times slower: they do less then.
extern const bool is_sanitized;

// The path of the tool.
extern const char* const tool_program;

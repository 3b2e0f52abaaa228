// What is declared in this namespace can be seen from outside a shared library.
#pragma once

#ifdef __GNUC__
#define COLDBRICK_PUBLIC [[gnu::visibility("default")]]
#else
#define COLDBRICK_PUBLIC
#endif

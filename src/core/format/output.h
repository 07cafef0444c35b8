#pragma once
// Writing files so that a reader sees the old file or the new one, never half of it.

#include <functional>
#include <string>

#include "core/base/result.h"

namespace erdwerk::format {

/// Calls `write` with a temporary path beside `path`, then renames it over `path`. When `write` fails, or the
/// disk is full, the temporary file is removed and `path` is as it was.
Result<void> replaceFile(const std::string& path,
                         const std::function<Result<void>(const std::string&)>& write);

/// The same for a text that is all there.
Result<void> replaceFile(const std::string& path, const std::string& text);

/// The same file, whatever way it was named: absolute, links followed.
std::string canonicalPath(const std::string& path);

/// Removes what writers that were killed left beside `path`: temporary files of processes of this machine
/// that are gone, and any that were not touched for a day.
void removeLeftovers(const std::string& path);

/// The system's reason for a number in errno, as words in a sentence.
std::string reasonOf(int error);
/// A library's report of a failure as words in a sentence: what it quotes of its own language is left out.
std::string plainReason(const std::string& report);

/// The whole file, as bytes; Io with the system's reason.
Result<std::string> readFile(const std::string& path);

/// ".csv" from "/data/Survey.CSV".
std::string endingOf(const std::string& path);

}  // namespace erdwerk::format

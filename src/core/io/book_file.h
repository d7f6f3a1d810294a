// SPDX-License-Identifier: GPL-3.0-or-later
//! The Book as a file, `name.book.jsonl` beside `name.kranich`: one entry a line, each line a JSON object
//! that stands alone, appended and never rewritten (docs/book-format.md). Two people's files may be laid
//! together in any order. And as a comma-separated table.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/io/project_file.h"
#include "core/tasks/book.h"
#include "core/tasks/task.h"

namespace kranich {

//! Where the Book of a project lies.
std::filesystem::path book_beside(const std::filesystem::path& project);

struct ReadBook {
  tasks::Book book;
  std::vector<Fault> faults;  //!< lines that could not be read, by number; they stay in the file
};
//! A Book from its text. A line cut short by a crash, or written by hand and wrong, is named and left out; an
//! id that stands twice counts once.
ReadBook read_book(std::string_view text);
//! An entry as its line, with the line's end. Numbers in the readings' own units.
std::string book_line(const tasks::Entry& entry);
//! Appends an entry to a file, which is made where there is none; begins a new line where the last one was
//! cut short, and asks the system to put it on the disk. Why it could not be done, or nothing.
std::optional<std::string> append_to_book(const std::filesystem::path& file, const tasks::Entry& entry);

//! One row a reading (one an entry without), with units.
std::string book_to_csv(const tasks::Book& book);
struct BookFromCsv {
  std::vector<tasks::Entry> entries;
  std::vector<Fault> faults;
};
BookFromCsv book_from_csv(std::string_view text);

//! The table of steps that ships, as lines with where they stand.
std::vector<std::pair<std::string, tasks::TaskLine>> shipped_task_lines();
//! A table of steps: lines as they are written, or what is wrong with its heading.
std::vector<std::pair<std::string, tasks::TaskLine>> task_lines(std::string_view csv,
                                                                std::vector<Fault>& faults);
//! The shipped table with the user's own file and the project's own lines.
tasks::TaskTable task_table(const Design& design, std::string_view own_file = {});

}  // namespace kranich

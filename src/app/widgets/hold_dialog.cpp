// SPDX-License-Identifier: GPL-3.0-or-later
//! Make it hold: what may move, ticked; the least changes after which nothing fails, to put in or to keep as
//! a variant; where there are none, the limits that contradict each other.
#include <QCheckBox>
#include <QDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <map>
#include <optional>
#include <set>

#include "app/document/background.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "core/assess/make_hold.h"
#include "core/io/stock.h"
#include "core/io/variants.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

class HoldDialog : public QDialog {
 public:
  HoldDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("hold-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Make it hold"));
    resize(980, 620);
    auto* all = new QVBoxLayout(this);
    state_ = new QLabel(this);
    state_->setObjectName("hold-state");
    state_->setWordWrap(true);
    all->addWidget(state_);
    auto* middle = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    auto* heading = new QLabel(tr("<b>May move</b> – untick what is built already"), this);
    heading->setFont(text_font(8.5));
    left->addWidget(heading);
    tree_ = new QTreeWidget(this);
    tree_->setObjectName("hold-knobs");
    tree_->setAccessibleName(tr("Numbers that may move"));
    tree_->setHeaderHidden(true);
    tree_->setMinimumWidth(330);
    tree_->setMaximumWidth(380);
    left->addWidget(tree_, 1);
    shelf_ = new QCheckBox(tr("Parts off the shelves, stronger materials too"), this);
    shelf_->setObjectName("hold-shelf");
    shelf_->setChecked(true);
    shelf_->setToolTip(tr("Wheels and springs of the shelves and stronger materials, each by name"));
    left->addWidget(shelf_);
    middle->addLayout(left);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto* inside = new QWidget(scroll);
    ways_ = new QVBoxLayout(inside);
    ways_->setSpacing(10);
    ways_->addStretch(1);
    scroll->setWidget(inside);
    middle->addWidget(scroll, 1);
    all->addLayout(middle, 1);
    auto* line = new QHBoxLayout;
    bar_ = new QProgressBar(this);
    bar_->setObjectName("hold-progress");
    bar_->setRange(0, 100);
    bar_->setTextVisible(false);
    line->addWidget(bar_, 4);
    line->addStretch(1);
    stop_ = new QPushButton(tr("Stop"), this);
    stop_->setObjectName("hold-stop");
    line->addWidget(stop_);
    again_ = new QPushButton(tr("Search again"), this);
    again_->setObjectName("hold-search");
    line->addWidget(again_);
    all->addLayout(line);
    auto* caution =
        new QLabel(tr("Figures for planning: what is shown has been assessed with the tolerances at "
                      "their middle. Local rules and licensed persons decide."),
                   this);
    caution->setFont(text_font(7.5));
    caution->setWordWrap(true);
    all->addWidget(caution);
    connect(stop_, &QPushButton::clicked, this, [this] {
      work_.cancel();
      show_state(tr("Stopped."));
      busy(false);
    });
    connect(again_, &QPushButton::clicked, this, [this] { search(); });
    connect(&work_, &Background::got_on, this,
            [this] { bar_->setValue(static_cast<int>(100 * work_.share())); });
    connect(&document_, &Document::changed, this, [this] {
      if (document_.before_drag()) return;
      fill();
      if (putting_in_) return;  // its own answer has been put in: that is told
      search();
    });
    fill();
    search();
  }

 private:
  void fill() {
    // What was unticked stays unticked.
    std::set<std::string> off;
    for (int g = 0; g < tree_->topLevelItemCount(); ++g)
      for (int i = 0; i < tree_->topLevelItem(g)->childCount(); ++i) {
        const auto* item = tree_->topLevelItem(g)->child(i);
        if (item->checkState(0) != Qt::Checked)
          off.insert(item->data(0, Qt::UserRole).toString().toStdString());
      }
    knobs_ = knobs_offered(document_.design(), document_.assessment());
    tree_->clear();
    std::map<std::string, QTreeWidgetItem*> groups;
    const auto lines = leg_lines(document_.design());
    for (const auto& k : knobs_) {
      const std::string group = k->id.substr(0, k->id.find('.'));
      auto*& under = groups[group];
      if (!under) {
        QString title = tr("Aircraft");
        for (const auto& l : lines)
          if (l.ids.front() == group)
            title = capitalised(
                text_of(l.several ? say("{} legs", l.word) : say("{} leg", l.word), document_.units()));
        under = new QTreeWidgetItem(tree_, {title});
        under->setFlags(under->flags() | Qt::ItemIsAutoTristate | Qt::ItemIsUserCheckable);
        under->setExpanded(true);
      }
      auto* item = new QTreeWidgetItem(under, {sentence_of(k->named(), document_.units())});
      item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
      item->setData(0, Qt::UserRole, QString::fromStdString(k->id));
      item->setCheckState(0, off.contains(k->id) ? Qt::Unchecked : Qt::Checked);
      item->setToolTip(
          0, tr("at most %1; %2")
                 .arg(sentence_of(k->worded(k->most), document_.units()),
                      k->least < 0 ? text_of(k->worded(k->least), document_.units()) : tr("no less")));
    }
  }

  void busy(bool on) {
    bar_->setVisible(on);
    stop_->setVisible(on);
    again_->setVisible(!on);
  }
  void show_state(const QString& text) { state_->setText(text); }

  void clear_ways() {
    clear_layout(ways_);
    ways_->addStretch(1);
  }

  void search() {
    clear_ways();
    std::vector<KnobRef> may;
    bool all = true;
    for (int g = 0; g < tree_->topLevelItemCount(); ++g)
      for (int i = 0; i < tree_->topLevelItem(g)->childCount(); ++i) {
        const auto* item = tree_->topLevelItem(g)->child(i);
        const std::string id = item->data(0, Qt::UserRole).toString().toStdString();
        if (item->checkState(0) != Qt::Checked) {
          all = false;
          continue;
        }
        for (const auto& k : knobs_)
          if (k->id == id) may.push_back(k);
      }
    int fails = 0;
    int unknown = 0;
    for (const Finding* f : worst_of_each(document_.assessment())) {
      fails += f->verdict == Verdict::fails;
      unknown += f->verdict == Verdict::unknown;
    }
    if (fails == 0) {
      busy(false);
      show_state(
          unknown == 0
              ? tr("<b>Nothing fails.</b>")
              : tr("<b>Nothing fails</b> that can be judged; checks that lack a number: %1.").arg(unknown));
      return;
    }
    if (may.empty() && !shelf_->isChecked()) {
      busy(false);
      show_state(tr("<b>Nothing may move.</b> Tick what is not built yet."));
      return;
    }
    busy(true);
    show_state(tr("<b>Failing: %1.</b> Looking for the least change after which nothing does …").arg(fails));
    work_.start<Holding>(
        [design = document_.design(), before = document_.assessment(),
         may = all ? std::nullopt : std::optional(std::move(may)),
         shelf = shelf_->isChecked()](const Progress& progress) {
          HoldSearch s;
          s.may_move = may;
          const Stock stock = stock_of(design);
          s.stock = shelf ? &stock : nullptr;
          s.progress = progress;
          return make_hold(design, before, s);
        },
        [this](Holding held) {
          busy(false);
          show(held);
        });
  }

  void show(const Holding& held) {
    clear_ways();
    const UnitSystem units = document_.units();
    const Theme& t = Theme::now();
    if (!held.ways.empty()) {
      show_state(
          held.ways.size() == 1
              ? tr("<b>One way</b>, assessed: nothing fails then.")
              : tr("<b>%1 different ways</b>, each assessed: nothing fails then. The least change first.")
                    .arg(held.ways.size()));
      int n = 0;
      for (const auto& way : held.ways) add_way(way, ++n);
      return;
    }
    show_state(
        held.contradict
            ? tr("<b>No way within what may move: these limits contradict each other.</b> Each left out, "
                 "the others could be met – let more move, or change one of them.")
            : tr("<b>No way was found.</b> Where it came nearest these still fail – let more move."));
    QString s;
    for (const auto& f : held.against)
      s += QStringLiteral(
               "<p><b>%2</b> %3 <span style='color:%1'>%6</span> &nbsp; <span style='color:%4'>%5</span></p>")
               .arg(t.of(f.verdict).name(), html(title_of(f, units)), html(value_text(f, units)),
                    t.grey.name(), html(limit_text(f, units)), text_of(verdict_word(f.verdict)));
    if (held.nearest)
      s += tr("<p>It came nearest with: %1</p>").arg(html(text_of(held.nearest->text, units)));
    auto* label = new QLabel(s, this);
    label->setObjectName("hold-against");
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    ways_->insertWidget(ways_->count() - 1, label);
  }

  void add_way(const Cure& way, int n) {
    const UnitSystem units = document_.units();
    const Theme& t = Theme::now();
    auto* card = new QFrame(this);
    card->setObjectName(QStringLiteral("hold-way-%1").arg(n));
    card->setFrameShape(QFrame::StyledPanel);
    auto* in = new QVBoxLayout(card);
    QString s;
    for (const auto& p : way.parts)
      s += QStringLiteral("<div style='color:%1'><b>%2</b></div>")
               .arg(t.accent.name(), html(sentence_of(p.knob->worded(p.change), units)));
    const auto prices = [&](const std::vector<Price>& list, const QString& heading) {
      if (list.empty()) return;
      QStringList lines;
      for (const auto& p : list) {
        const Measure& m = measure(p.measure_id);
        const QString title =
            text_of(m.title) +
            (p.subject.empty() ? QString() : QStringLiteral(", ") + text_of(p.subject.words, units));
        lines << QStringLiteral("%1 %2 → <span style='color:%3'>%4, %5</span>")
                     .arg(html(title), html(document_.say(p.value_before, m.kind)), t.of(p.after).name(),
                          html(document_.say(p.value_after, m.kind)), text_of(verdict_word(p.after)));
      }
      s += QStringLiteral(
               "<div style='margin-top:5px; font-size:8pt'><span style='color:%1'>%2</span><br>%3</div>")
               .arg(t.grey.name(), heading, lines.join("<br>"));
    };
    prices(way.better, tr("cured"));
    prices(way.worse, tr("tight then"));
    prices(way.costs, tr("still in limits, but less to spare"));
    auto* text = new QLabel(s, card);
    text->setWordWrap(true);
    in->addWidget(text);
    auto* line = new QHBoxLayout;
    line->addStretch(1);
    auto* keep = new QPushButton(tr("Keep as variant"), card);
    keep->setObjectName(QStringLiteral("hold-keep-%1").arg(n));
    keep->setToolTip(tr("Beside the design in hand: Ctrl+K shows them side by side"));
    auto* put = new QPushButton(tr("Put in"), card);
    put->setObjectName(QStringLiteral("hold-put-%1").arg(n));
    put->setToolTip(tr("Makes these changes; Ctrl+Z takes them back"));
    line->addWidget(keep);
    line->addWidget(put);
    in->addLayout(line);
    connect(put, &QPushButton::clicked, this, [this, way] {
      putting_in_ = true;
      document_.edit(tr("Make it hold"), [&](Design& d) { d = way.applied(d); });
      putting_in_ = false;
      clear_ways();
      busy(false);
      show_state(tr("<b>Put in: %1.</b> Nothing fails now; Ctrl+Z takes it back.")
                     .arg(html(text_of(way.text, document_.units()))));
    });
    connect(keep, &QPushButton::clicked, this, [this, way, keep] {
      putting_in_ = true;
      document_.edit(tr("Keep a way as variant"), [&](Design& d) {
        Design with = way.applied(d);
        const std::string name = unused_name(d.variants, in_words(say("holds")));
        keep_variant(with, name, in_words(way.text, {d.units}));
        d.variants = with.variants;
      });
      putting_in_ = false;
      keep->setEnabled(false);
      keep->setText(tr("Kept"));
    });
    ways_->insertWidget(ways_->count() - 1, card);
  }

  Document& document_;
  QLabel* state_;
  QTreeWidget* tree_;
  QCheckBox* shelf_;
  QPushButton *stop_, *again_;
  QProgressBar* bar_;
  QVBoxLayout* ways_;
  std::vector<KnobRef> knobs_;
  bool putting_in_ = false;
  Background work_;
};

}  // namespace

QWidget* make_hold_dialog(Document& document, QWidget* parent) { return new HoldDialog(document, parent); }

}  // namespace kranich::app

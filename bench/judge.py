"""Makes the forests that judge the lines of a page, by gradient boosting (scikit-learn): one for each part of the templates,
from all the other parts, and one from all. Called by judge.mjs: judge.py FOLDER [FEATURE,FEATURE…], the features that are to
be left out. FOLDER/rows.csv has a line of the pages in each row: part, kind of copy, label, weight, features.
Debian: python3-sklearn, python3-joblib."""
import json
import sys

import numpy as np
from joblib import Parallel, delayed
from sklearn.ensemble import GradientBoostingClassifier

PARTS = 10
# What a single line may weigh, in shares of its page's text; a copy weighs less than the page itself.
MOST_WEIGHT = 0.2
COPY = 0.3
RATE = 0.06

folder = sys.argv[1]
without = sys.argv[2].split(",") if len(sys.argv) > 2 else []
with open(f"{folder}/rows.csv") as file:
    names = file.readline().strip().split(",")
rows = np.loadtxt(f"{folder}/rows.csv", delimiter=",", skiprows=1)
part, kind, label, weight, values = rows[:, 0], rows[:, 1], rows[:, 2], rows[:, 3], rows[:, 4:]
features = names[4:]
weight = np.minimum(weight, MOST_WEIGHT) * np.where(kind > 0, COPY, 1)
for name in without:
    values[:, features.index(name)] = 0


def fit(rows):
    model = GradientBoostingClassifier(
        n_estimators=150, learning_rate=RATE, max_leaf_nodes=10, max_depth=None, min_samples_leaf=40,
        subsample=0.5, max_features=0.2, random_state=1,
    )
    return model.fit(values[rows], label[rows], sample_weight=weight[rows] / weight[rows].mean())


def tree_of(estimator):
    nodes = estimator.tree_
    tree = {"feature": [], "upTo": [], "right": [], "value": []}

    def walk(node):
        at = len(tree["feature"])
        for column in tree.values():
            column.append(0)
        tree["value"][at] = round(float(nodes.value[node, 0, 0]) * RATE, 4)
        if nodes.children_left[node] == -1:
            tree["feature"][at] = -1
            return
        tree["feature"][at] = int(nodes.feature[node])
        tree["upTo"][at] = float(f"{nodes.threshold[node]:.5g}")
        walk(nodes.children_left[node])
        tree["right"][at] = len(tree["feature"])
        walk(nodes.children_right[node])

    walk(0)
    return tree


def make(name, rows):
    model = fit(rows)
    other, own = model.init_.class_prior_
    forest = {"features": features, "start": round(float(np.log(own / other)), 4)}
    forest["trees"] = [tree_of(estimator) for (estimator,) in model.estimators_]
    with open(f"{folder}/{name}.json", "w") as file:
        json.dump(forest, file, separators=(",", ":"))


jobs = [(f"part-{each}", part != each) for each in range(PARTS)] + ([] if without else [("all", part < PARTS)])
Parallel(n_jobs=2)(delayed(make)(name, rows) for name, rows in jobs)

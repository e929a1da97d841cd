"""Asking the API as a client does."""

import json
from typing import Any

from fastapi.testclient import TestClient


def put(client: TestClient, url: str, doc: object, revision: int = 1, **headers: str) -> Any:
    sent = {"if-match": f'"{revision}"', "content-type": "application/json"} | headers
    return client.put(url, content=json.dumps(doc), headers=sent)


def sentence(answer: Any) -> str:
    return str(answer.json()["problems"][0]["sentence"])


def named(client: TestClient, name: str) -> tuple[str, dict[str, Any]]:
    stored = next(one for one in client.get("/api/setups").json() if one["doc"]["name"] == name)
    return stored["id"], stored["doc"]
